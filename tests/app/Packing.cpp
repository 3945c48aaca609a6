// A quilt is packed into one file, and opened elsewhere into a folder of one's choice.
#include <QDir>
#include <QFile>
#include <QLineEdit>
#include <QPushButton>

#include "app/Story.h"
#include "app/start/StartPage.h"

namespace uq::test {

using testing::HasSubstr;

class Packing : public Story {
 protected:
  QString packedFile() { return QString::fromStdString(folder()) + QStringLiteral(".quilt"); }
  static QByteArray bytesOf(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
  }
  // Enter on what is proposed.
  void accept(const char* dialog, const char* named) {
    hand.inDialog(QLatin1String(dialog), [this, named](QWidget& shown) {
      picture(named, &shown);
      shown.findChild<QLineEdit*>(QStringLiteral("fileNameEdit"))->setFocus();
      hand.key(Qt::Key_Return);
    });
  }
  void enter(const QString& folder) {
    hand.inDialog(QStringLiteral("folder-dialog"), [this, folder](QWidget& shown) {
      auto* field = shown.findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
      field->setFocus();
      field->selectAll();
      hand.type(folder);
      hand.key(Qt::Key_Return);
    });
  }
  void pack() {
    accept("pack-dialog", "pack");
    choose(ActionId::packQuilt);
    awaitWork();
  }
};

TEST_F(Packing, AQuiltIsPackedDroppedElsewhereWorkedOnAndPackedAgain) {
  openDemo();
  pack();
  EXPECT_EQ(room->notices()->text(), QString());
  const QByteArray first = bytesOf(packedFile());
  ASSERT_GT(first.size(), 1000);
  const std::string quilt = session().quilt().facts().name;
  room.reset();

  // On another desk there is nothing else.
  QDir(QString::fromStdString(folder())).removeRecursively();
  room = std::make_unique<Workroom>();
  hand.show(*room);
  const int before = hand.actions();
  accept("folder-dialog", "unpack");
  hand.drop(room.get(), QPointF(50, 50), {packedFile()});
  ASSERT_TRUE(waitFor([&] { return room->session() != nullptr; }));
  awaitWork();
  EXPECT_LE(hand.actions() - before, 2) << "dropped, and Enter";
  EXPECT_EQ(session().quilt().facts().name, quilt);
  EXPECT_THAT(session().problems(), testing::IsEmpty());
  EXPECT_TRUE(session().isSaved());
  EXPECT_EQ(bytesOf(packedFile()), first);

  // The next time the same file is proposed, with the same bytes as long as nothing changed.
  pack();
  EXPECT_EQ(bytesOf(packedFile()), first);
  hand.click(room->table(), onTable("street", 24));
  hand.click(room->canvas(), onMap({20, 20}));
  pack();
  EXPECT_NE(bytesOf(packedFile()), first);
  EXPECT_FALSE(session().isSaved()) << "packing saves nothing in the folder";
}

TEST_F(Packing, AStrangeFileIsReplacedOnlyWhenAsked) {
  QFile strange(packedFile());
  ASSERT_TRUE(strange.open(QIODevice::WriteOnly));
  strange.write("somebody's");
  strange.close();
  openDemo();
  hand.inDialog(QStringLiteral("replace-question"), [this](QWidget&) { hand.key(Qt::Key_Return); });
  pack();
  EXPECT_EQ(bytesOf(packedFile()), QByteArray("somebody's"));
  hand.inDialog(QStringLiteral("replace-question"),
                [this](QWidget& asked) { hand.click(asked.findChild<QPushButton*>(QStringLiteral("replace"))); });
  pack();
  EXPECT_GT(bytesOf(packedFile()).size(), 1000);
}

TEST_F(Packing, WhatIsNoPackedQuiltSaysSoAndTheOpenOneStays) {
  openDemo();
  QFile broken(packedFile());
  ASSERT_TRUE(broken.open(QIODevice::WriteOnly));
  broken.write("this is no zip");
  broken.close();
  const QString elsewhere = QString::fromStdString(folder()) + QStringLiteral("-elsewhere");
  enter(elsewhere);
  room->openQuilt(packedFile());
  ASSERT_TRUE(waitFor([&] { return !room->notices()->text().isEmpty(); }));
  EXPECT_THAT(room->notices()->text().toStdString(), HasSubstr("no packed quilt"));
  EXPECT_EQ(session().store().folder(), folder());
  EXPECT_FALSE(QDir(elsewhere).exists());
}

TEST_F(Packing, OfAQuiltThatCouldNotBeReadWholeNothingIsPacked) {
  QFile::remove(QString::fromStdString(folder()) + QStringLiteral("/maps/depot-yard/paving.cells"));
  openDemo();
  choose(ActionId::packQuilt);
  EXPECT_THAT(room->notices()->text().toStdString(), HasSubstr("could not be read"));
  EXPECT_FALSE(QFile::exists(packedFile()));
}

}  // namespace uq::test
