#include "core/sheets/CutFits.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <unordered_map>

namespace uq {

double usualness(int cell) {
  switch (cell) {
    case 32: return 2.8;
    case 16: return 2.6;
    case 64: return 2.4;
    case 48: return 2.1;
    case 8:
    case 24:
    case 96:
    case 128: return 2;
    default: break;
  }
  if (cell < 8) return -1.5;
  if (cell % 16 == 0) return cell > 128 ? 0.8 : 1.4;
  if (cell % 8 == 0) return 1;
  if (cell % 4 == 0) return 0.5;
  return cell % 2 == 0 ? 0.2 : 0;
}

namespace {

constexpr int kMostSamples = 700;  // rows or columns of pixels that are looked at
constexpr int kMostGap = 8;        // gaps and borders that are tried, in pixels
constexpr int kMostBorder = 12;
constexpr int kBlur = 4;                 // pixels; textures are judged by their average over so many
constexpr std::size_t kWidestFrame = 2;  // pixels
constexpr double kUnlikelyOffset = 6;
constexpr double kEvenly = 0.6;
constexpr double kLittle = 2;            // of a weight: what chance may say as well
constexpr std::size_t kMostOnAxis = 10;  // cell sizes that are kept for each border and gap

// Whether a pixel counts as nothing: see-through, or of the colour that lies between the tiles.
struct Clear {
  std::optional<std::uint32_t> colour;
  bool operator()(std::uint32_t pixel) const { return alphaOf(pixel) < 8 || (colour && pixel == *colour); }
};

int differenceOf(std::uint32_t a, std::uint32_t b) {
  int sum = 0;
  for (int shift = 0; shift < 32; shift += 8) {
    sum += std::abs(static_cast<int>(a >> shift & 0xff) - static_cast<int>(b >> shift & 0xff));
  }
  return sum;
}

// What is counted along one direction, `at(i, k)` being pixel i of line k.
struct Axis {
  int length = 0;
  std::vector<double> broken;   // at the joint before pixel i: how far the lines do not go on there
  std::vector<double> changed;  // how far the average colours on both sides differ
  std::vector<double> clear;    // share of the lines that are clear at pixel i
  std::vector<double> begins;   // share of the lines in which something begins or ends there, clear on one side
};

template <class At>
Axis countedAxis(int length, int lines, const Clear& clear, At&& at) {
  Axis axis;
  axis.length = length;
  const auto size = static_cast<std::size_t>(length);
  axis.broken.assign(size + 1, 0);
  axis.changed.assign(size + 1, 0);
  axis.clear.assign(size, 0);
  axis.begins.assign(size + 1, 0);
  // Lines come in groups of kBlur neighbours, so that their average can be taken across, too.
  const int groups = std::max(1, lines / kBlur);
  const int step = std::max(1, groups / (kMostSamples / kBlur));
  int counted = 0;
  std::vector<std::array<int, 4>> sums(size + 1);
  std::vector<std::uint32_t> read(size * kBlur);
  for (int group = 0; group < groups; group += step) {
    for (auto& sum : sums) sum = {};
    const int first = group * kBlur;
    const int count = std::min(lines - first, kBlur);
    // The lines of a group are read together: where they are columns, their pixels are neighbours in memory.
    for (int i = 0; i < length; ++i) {
      for (int k = 0; k < count; ++k) read[static_cast<std::size_t>(k * length + i)] = at(i, first + k);
    }
    for (int k = 0; k < count; ++k, ++counted) {
      const std::uint32_t* line = read.data() + k * length;
      std::uint32_t before = 0;
      bool clearBefore = true;
      for (int i = 0; i < length; ++i) {
        const std::uint32_t pixel = line[i];
        const bool isClear = clear(pixel);
        const auto n = static_cast<std::size_t>(i);
        if (isClear) axis.clear[n] += 1;
        if (i > 0) {
          const double goesOn = isClear || clearBefore ? 0 : std::max(0.0, 1 - differenceOf(pixel, before) / 120.0);
          axis.broken[n] += 1 - goesOn;
          if (isClear != clearBefore) axis.begins[n] += 1;
        }
        for (std::size_t c = 0; c < 4; ++c) sums[n][c] += static_cast<int>((isClear ? 0 : pixel) >> (8 * c) & 0xff);
        before = pixel;
        clearBefore = isClear;
      }
    }
    // Sliding averages on both sides of each joint.
    for (int i = kBlur; i + kBlur <= length; ++i) {
      int difference = 0;
      for (std::size_t c = 0; c < 4; ++c) {
        int left = 0;
        int right = 0;
        for (int d = 0; d < kBlur; ++d) {
          left += sums[static_cast<std::size_t>(i - 1 - d)][c];
          right += sums[static_cast<std::size_t>(i + d)][c];
        }
        difference += std::abs(left - right);
      }
      axis.changed[static_cast<std::size_t>(i)] += difference;
    }
  }
  for (double& one : axis.broken) one /= std::max(1, counted);
  for (double& one : axis.clear) one /= std::max(1, counted);
  for (double& one : axis.begins) one /= std::max(1, counted);
  // A change is where it is greatest; beside it the averages only overlap it.
  const std::vector<double> raw = axis.changed;
  for (std::size_t i = 1; i + 1 < raw.size(); ++i) {
    axis.changed[i] = std::max(0.0, raw[i] - (raw[i - 1] + raw[i + 1]) / 2);
  }
  return axis;
}

// How much greater a count is at some joints than at all.
class Contrast {
 public:
  explicit Contrast(const std::vector<double>& counts) {
    double squares = 0;
    const std::size_t last = counts.size() - 1;  // joints 1 .. last - 1
    for (std::size_t i = 1; i < last; ++i) {
      mean_ += counts[i];
      squares += counts[i] * counts[i];
    }
    count_ = static_cast<double>(last > 1 ? last - 1 : 1);
    mean_ /= count_;
    spread_ = std::sqrt(std::max(0.0, squares / count_ - mean_ * mean_));
  }

  double mean() const { return mean_; }

  // `sum` over `n` joints.
  double z(double sum, double n) const {
    if (n < 1 || spread_ <= 0 || n >= count_) return 0;
    return (sum / n - mean_) * std::sqrt(n / (1 - n / count_)) / spread_;
  }

 private:
  double mean_ = 0;
  double spread_ = 0;
  double count_ = 1;
};

struct Fit {
  int cell = 0;
  double weight = 0;
  double seen = 0;  // what of the weight the pixels say
  int offset = 0;
};

constexpr std::array<int, 8> kUsualSizes = {8, 16, 24, 32, 48, 64, 96, 128};

class AxisFits {
 public:
  explicit AxisFits(const Axis& axis) : axis_(axis), broken_(axis.broken), changed_(axis.changed) {
    for (int width = 1; width <= static_cast<int>(kWidestFrame); ++width) {
      std::vector<double> both(axis.broken.size(), 0);
      for (int i = width; i + width < axis.length; ++i) {
        both[static_cast<std::size_t>(i)] = std::min(at(axis.broken, i - width), at(axis.broken, i + width));
      }
      frames_.push_back(std::move(both));
    }
    for (const auto& one : frames_) framed_.emplace_back(one);
    clearSums_.push_back(0);
    for (const double one : axis.clear) clearSums_.push_back(clearSums_.back() + one);
    // Stretches in which there is something, with nothing at all between them.
    bool wasClear = true;
    for (const double one : axis.clear) {
      const bool isClear = one > 0.999;
      islands_ += wasClear && !isClear;
      wasClear = isClear;
    }
  }

  // The likeliest cell sizes for a border and gap, the best first.
  std::vector<Fit> best(int border, int gap) const {
    std::vector<Fit> fits;
    if (2 * border >= axis_.length) return fits;
    if (clearOf(0, border) < 0.99 || clearOf(axis_.length - border, axis_.length) < 0.99) return fits;
    const int most = std::min(kLargestCell, axis_.length - 2 * border);
    for (int cell = kSmallestMeasured; cell <= most; ++cell) {
      if (const auto fit = fitOf(cell, border, gap, 0)) fits.push_back(*fit);
    }
    const std::size_t kept = std::min(fits.size(), kMostOnAxis);
    std::partial_sort(fits.begin(), fits.begin() + static_cast<std::ptrdiff_t>(kept), fits.end(),
                      [](const Fit& a, const Fit& b) { return a.weight > b.weight; });
    fits.resize(kept);
    return fits;
  }

  // The likeliest place of the first cell where the cells lie at any; needs much more than those at 0 to be believed.
  std::optional<Fit> shifted(int cell, int gap) const {
    std::optional<Fit> best;
    for (int offset = 1; offset < std::min(cell + gap, axis_.length - cell); ++offset) {
      auto fit = fitOf(cell, 0, gap, offset);
      if (fit && (!best || fit->weight > best->weight)) best = fit;
    }
    if (best) best->weight -= kUnlikelyOffset;
    return best;
  }
  std::optional<Fit> straight(int cell, int gap) const { return fitOf(cell, 0, gap, 0); }

 private:
  static double at(const std::vector<double>& counts, int i) { return counts[static_cast<std::size_t>(i)]; }

  // The share of what is clear from one pixel to another.
  double clearOf(int from, int to) const {
    if (to <= from) return 1;
    return (at(clearSums_, to) - at(clearSums_, from)) / (to - from);
  }

  std::optional<Fit> fitOf(int cell, int border, int gap, int offset) const {
    const int pitch = cell + gap;
    const int room = axis_.length - offset - 2 * border;
    const int count = (room + gap) / pitch;
    if (room < cell || count < 1) return std::nullopt;
    const int rest = room - (count * pitch - gap);
    double broken = 0;
    double changed = 0;
    double tight = 0;
    double clear = 0;
    double joints = 0;
    double onClear = 0;
    std::array<double, 2> byParity{};
    std::array<double, kWidestFrame> framed{};
    for (int k = offset > 0 && gap == 0 ? 0 : 1; k < count; ++k) {
      const int from = offset + border + k * pitch - gap;  // the first pixel of the gap, or of the next cell
      if (gap > 0) {
        const double here = clearOf(from, from + gap);
        if (here < 0.5) return std::nullopt;
        clear += here;
      }
      double sum = 0;
      double change = 0;
      for (int i = from; i <= from + gap; ++i) {
        sum += at(axis_.broken, i);
        change = std::max(change, at(axis_.changed, i));
      }
      broken += sum;
      byParity[static_cast<std::size_t>(k % 2)] += sum / (gap + 1);
      if (gap == 0 && from > 0 && std::max(at(axis_.clear, from - 1), at(axis_.clear, from)) > 0.999) onClear += 1;
      changed += change;
      tight += std::min(at(axis_.begins, from), at(axis_.begins, from + gap));
      for (std::size_t w = 0; w < kWidestFrame; ++w) framed[w] += at(frames_[w], from);
      joints += 1;
    }
    double weight = 0;
    if (joints > 0) {
      weight = broken_.z(broken, joints * (gap + 1)) / std::sqrt(gap + 1.0) + 0.6 * changed_.z(changed, joints);
      if (gap == 0) {
        for (std::size_t w = 0; w < kWidestFrame; ++w)
          weight = std::max(weight, 1.2 * framed_[w].z(framed[w], joints) - 1);
      } else {
        if (clear / joints < 0.8) return std::nullopt;
        weight += 8 * tight / joints - 1.5 - 20 * (1 - clear / joints);
      }
    }
    // Joints of which every other one is weak are half of them no joints.
    if (joints >= 4) {
      const double odd = byParity[1] / std::ceil(joints / 2) - broken_.mean();
      const double even = byParity[0] / std::floor(joints / 2) - broken_.mean();
      const double strong = std::max(odd, even);
      const double weak = std::min(odd, even);
      if (strong > 0 && weak < kEvenly * strong)
        weight -= std::max(0.0, weight) * 0.8 * (kEvenly - std::max(0.0, weak / strong));
    }
    // One thing in each cell, and nothing on the joints.
    if (joints > 0 && gap == 0 && onClear == joints && islands_ == count) weight += 5;
    if (joints < 3) weight -= 0.6 * (3 - joints);
    if (border > 0) weight += 3 * std::min(at(axis_.begins, border), at(axis_.begins, axis_.length - border)) - 0.7;
    if (rest > 0) weight -= rest == gap ? 1.5 : 5 + 4.0 * rest / cell;
    return Fit{cell, weight + usualness(cell), weight, offset};
  }

  const Axis& axis_;
  Contrast broken_;
  Contrast changed_;
  std::vector<std::vector<double>> frames_;
  std::vector<Contrast> framed_;
  std::vector<double> clearSums_;
  int islands_ = 0;
};

}  // namespace

std::optional<std::uint32_t> colourBetween(const PixelView& picture) {
  std::unordered_map<std::uint32_t, int> lines;
  for (int y = 0; y < picture.h; ++y) {
    const std::uint32_t* row = picture.row(y);
    if (std::all_of(row, row + picture.w, [row](std::uint32_t pixel) { return pixel == row[0]; })) ++lines[row[0]];
  }
  std::optional<std::uint32_t> best;
  int most = 0;
  for (const auto& [colour, count] : lines) {
    if (alphaOf(colour) >= 8 && count > most) {
      best = colour;
      most = count;
    }
  }
  return best;
}

std::vector<CutProposal> cutsThatFit(const PixelView& picture, std::optional<std::uint32_t> between, PixelSize usual) {
  const Clear clear{between};
  const Axis across = countedAxis(picture.w, picture.h, clear, [&](int i, int k) { return picture.at(i, k); });
  const Axis down = countedAxis(picture.h, picture.w, clear, [&](int i, int k) { return picture.at(k, i); });
  const AxisFits fitsAcross(across);
  const AxisFits fitsDown(down);
  std::vector<CutProposal> all;
  const auto add = [&](const Fit& w, const Fit& h, int border, int gap) {
    CutProposal one;
    one.cut = {{w.cell, h.cell}, border, gap, {w.offset, h.offset}};
    one.weight = w.weight + h.weight;
    one.isGuess = w.seen + h.seen < kLittle;
    if (w.cell == h.cell) one.weight += 2.5;
    if (w.cell == 2 * h.cell || h.cell == 2 * w.cell) one.weight += 0.5;
    if (one.cut.cell == usual) one.weight += 1;
    all.push_back(std::move(one));
  };
  for (int border = 0; border <= kMostBorder; ++border) {
    for (int gap = 0; gap <= kMostGap; ++gap) {
      const auto wide = fitsAcross.best(border, gap);
      const auto high = wide.empty() ? std::vector<Fit>() : fitsDown.best(border, gap);
      for (const Fit& w : wide) {
        for (const Fit& h : high) add(w, h, border, gap);
      }
    }
  }
  // Something other than tiles may stand at the left or at the top: tiles of usual sizes are looked for at any place.
  std::vector<int> sizes(kUsualSizes.begin(), kUsualSizes.end());
  for (const int size : {usual.w, usual.h}) {
    if (size >= kSmallestMeasured && std::find(sizes.begin(), sizes.end(), size) == sizes.end()) sizes.push_back(size);
  }
  for (const int size : sizes) {
    for (int gap = 0; gap <= 2; ++gap) {
      const std::optional<Fit> wide[] = {fitsAcross.straight(size, gap), fitsAcross.shifted(size, gap)};
      const std::optional<Fit> high[] = {fitsDown.straight(size, gap), fitsDown.shifted(size, gap)};
      for (const auto& w : wide) {
        for (const auto& h : high) {
          if (w && h && (w->offset > 0 || h->offset > 0)) add(*w, *h, 0, gap);
        }
      }
    }
  }
  return all;
}

}  // namespace uq
