#include "core/base/Squeezed.h"

#include <zstd.h>

namespace uq {

namespace {
constexpr int kLevel = 1;
}

std::string squeezed(std::string_view bytes) {
  std::string packed(ZSTD_compressBound(bytes.size()), '\0');
  ZSTD_CCtx* context = ZSTD_createCCtx();
  ZSTD_CCtx_setParameter(context, ZSTD_c_compressionLevel, kLevel);
  ZSTD_CCtx_setParameter(context, ZSTD_c_checksumFlag, 1);
  packed.resize(ZSTD_compress2(context, packed.data(), packed.size(), bytes.data(), bytes.size()));
  ZSTD_freeCCtx(context);
  packed.shrink_to_fit();
  return packed;
}

std::optional<std::string> unsqueezed(std::string_view bytes, std::size_t most) {
  const auto size = ZSTD_getFrameContentSize(bytes.data(), bytes.size());
  if (size == ZSTD_CONTENTSIZE_ERROR || size == ZSTD_CONTENTSIZE_UNKNOWN || size > most) return std::nullopt;
  std::string whole(size, '\0');
  if (ZSTD_decompress(whole.data(), whole.size(), bytes.data(), bytes.size()) != size) return std::nullopt;
  return whole;
}

}  // namespace uq
