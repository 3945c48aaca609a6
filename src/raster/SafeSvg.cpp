#include "raster/SafeSvg.h"

#include <zlib.h>

#include <QXmlStreamReader>
#include <QXmlStreamWriter>
#include <algorithm>
#include <memory>
#include <optional>

namespace uq {

namespace {

bool isPacked(std::string_view bytes) { return bytes.starts_with("\x1f\x8b"); }

// Bytes that begin like XML, in any encoding that XML has: plain, or with a mark of UTF-8 or UTF-16 before it.
bool isXml(std::string_view bytes) {
  const auto first = bytes.find_first_not_of(std::string_view(" \t\r\n\0\xef\xbb\xbf\xfe\xff", 10));
  return first != std::string_view::npos && bytes[first] == '<';
}

Error tooLarge(const std::string& file) {
  return Error{Error::Cause::tooLarge, "the drawing is longer than 32 MB", file, 0, {}, {}};
}

Result<QByteArray> unpacked(std::string_view bytes, const std::string& file) {
  z_stream stream{};
  constexpr int kGzip = 16;
  if (inflateInit2(&stream, MAX_WBITS + kGzip) != Z_OK) return fail(Error::Cause::other, "it cannot be unpacked", file);
  const std::unique_ptr<z_stream, int (*)(z_stream*)> closer(&stream, inflateEnd);
  stream.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(bytes.data()));
  stream.avail_in = static_cast<uInt>(std::min<std::size_t>(bytes.size(), kMostSvgBytes));
  QByteArray out;
  char part[1 << 16];
  for (int state = Z_OK; state != Z_STREAM_END;) {
    stream.next_out = reinterpret_cast<Bytef*>(part);
    stream.avail_out = sizeof part;
    state = inflate(&stream, Z_NO_FLUSH);
    if (state != Z_OK && state != Z_STREAM_END) return fail(Error::Cause::broken, "it cannot be unpacked", file);
    out.append(part, static_cast<qsizetype>(sizeof part - stream.avail_out));
    if (static_cast<std::size_t>(out.size()) > kMostSvgBytes) return fail(tooLarge(file));
    if (state == Z_OK && stream.avail_in == 0 && stream.avail_out != 0) {
      return fail(Error::Cause::broken, "it is cut off", file);
    }
  }
  return out;
}

// Whether bytes are a picture of pixels, of a kind that cannot ask for anything.
bool arePixels(const QByteArray& bytes) {
  for (const QByteArrayView mark : {QByteArrayView("\x89PNG"), QByteArrayView("\xff\xd8\xff"), QByteArrayView("GIF8"),
                                    QByteArrayView("BM")}) {
    if (bytes.startsWith(mark)) return true;
  }
  return bytes.startsWith("RIFF") && bytes.mid(8, 4) == "WEBP";
}

// What an element may refer to: a part of the drawing, or a picture inside it, spelt anew, so that whoever reads it finds
// just the bytes that were looked at here; nothing for anything else.
std::optional<QString> safeReference(QStringView target) {
  if (target.startsWith(QLatin1Char('#'))) return target.toString();
  constexpr QLatin1String kMark("base64,");
  const auto mark = target.indexOf(kMark);
  if (!target.startsWith(QLatin1String("data:image/")) || mark < 0) return std::nullopt;
  QByteArray spelt = target.mid(mark + kMark.size()).toLatin1();
  spelt.removeIf([](char c) { return c == ' ' || c == '\n' || c == '\r' || c == '\t'; });
  const auto pixels = QByteArray::fromBase64Encoding(spelt, QByteArray::AbortOnBase64DecodingErrors);
  if (!pixels || !arePixels(*pixels)) return std::nullopt;
  return QStringLiteral("data:image/png;base64,") + QString::fromLatin1((*pixels).toBase64());
}

}  // namespace

bool mayBeSvg(std::string_view bytes) { return isPacked(bytes) || isXml(bytes); }

Result<QByteArray> safeSvg(std::string_view bytes, const std::string& file) {
  if (bytes.size() > kMostSvgBytes) return fail(tooLarge(file));
  QByteArray text(bytes.data(), static_cast<qsizetype>(bytes.size()));
  if (isPacked(bytes)) {
    auto plain = unpacked(bytes, file);
    if (!plain) return fail(plain.error());
    text = std::move(*plain);
  }
  QXmlStreamReader reader(text);
  QByteArray safe;
  QXmlStreamWriter writer(&safe);
  while (!reader.atEnd()) {
    switch (reader.readNext()) {
      case QXmlStreamReader::StartElement: {
        // By the names as they were spelt, so that their namespaces stay the same.
        writer.writeStartElement(reader.qualifiedName().toString());
        for (const QXmlStreamNamespaceDeclaration& one : reader.namespaceDeclarations()) {
          const QString prefix = one.prefix().toString();
          const QString name = prefix.isEmpty() ? QStringLiteral("xmlns") : QStringLiteral("xmlns:") + prefix;
          writer.writeAttribute(name, one.namespaceUri().toString());
        }
        for (const QXmlStreamAttribute& one : reader.attributes()) {
          const bool refers = one.name() == QLatin1String("href");
          const auto value = refers ? safeReference(one.value()) : std::optional(one.value().toString());
          if (value) writer.writeAttribute(one.qualifiedName().toString(), *value);
        }
        break;
      }
      case QXmlStreamReader::EndElement: writer.writeEndElement(); break;
      case QXmlStreamReader::Characters: writer.writeCharacters(reader.text().toString()); break;
      default: break;  // comments, types, instructions
    }
    if (static_cast<std::size_t>(safe.size()) > kMostSvgBytes) return fail(tooLarge(file));
  }
  if (reader.hasError()) {
    return fail(Error::Cause::broken, "the drawing cannot be read (" + reader.errorString().toStdString() + ")", file,
                static_cast<int>(reader.lineNumber()));
  }
  return safe;
}

}  // namespace uq
