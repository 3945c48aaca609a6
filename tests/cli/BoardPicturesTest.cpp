// Pictures of several maps, from the command line.
#include "cli/Uquilt.h"

namespace uq {

TEST_F(Uquilt, RendersTheBoardAndAMapWithWhatIsSewnToIt) {
  const Answer info = run(words({"info"}));
  EXPECT_THAT(info.out, testing::HasSubstr("seam Depot Yard ~ Ferry Street: 32 cells"));
  EXPECT_THAT(info.out, testing::HasSubstr("seam Canal Locks wraps across: 12 cells"));
  const Answer board = run(words({"render", "--board", "--zoom", "0.1", "-o"}) + QStringList{png()});
  EXPECT_EQ(board.code, 0) << board.err;
  EXPECT_THAT(board.out, testing::HasSubstr("8 pieces"));
  const QImage world(png());
  EXPECT_GT(world.width(), 500);
  const QString svg = scratch.filePath(QStringLiteral("world.svg"));
  EXPECT_EQ(run(words({"render", "--board", "--zoom", "0.05", "-o"}) + QStringList{svg}).code, 0);
  QFile file(svg);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const std::string drawing = file.readAll().toStdString();
  EXPECT_THAT(drawing, testing::HasSubstr(">Depot Yard</text>"));
  EXPECT_THAT(drawing, testing::HasSubstr("stroke-dasharray"));
  // Depot Yard and Ferry Street, side by side: the pixels of each are those of its own picture.
  ASSERT_EQ(render("Ferry Street", {"--exact"}).code, 0);
  const QImage street = QImage(png()).convertToFormat(QImage::Format_RGB32);
  const Answer both = render("Depot Yard", {"--with-neighbours", "1"});
  EXPECT_EQ(both.code, 0) << both.err;
  EXPECT_THAT(both.out, testing::HasSubstr("Depot Yard and 1 beside it"));
  const QImage two = QImage(png()).convertToFormat(QImage::Format_RGB32);
  ASSERT_GE(two.width(), 2 * street.width());
  EXPECT_EQ(two.copy(two.width() - 900, two.height() - street.height(), 800, 900), street.copy(street.width() - 900, 0, 800, 900));
  EXPECT_EQ(run(words({"render", "-o"}) + QStringList{png()}).code, 2);
  EXPECT_EQ(run(words({"render", "Quayside", "--board", "-o"}) + QStringList{png()}).code, 2);
  EXPECT_EQ(render("Quayside", {"--with-neighbours", "0"}).code, 2);
}

}  // namespace uq
