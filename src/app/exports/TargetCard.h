// TargetCard: one target of the quilt: a sample of what comes out, where it goes, of which maps, and what it has no place for.
//
// Every change is a step of the quilt. The sample is of the map that is worked on, where it goes out. Threads: the interface's.
#pragma once

#include <QComboBox>
#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>

#include "app/exports/Exports.h"
#include "app/look/NumberField.h"

namespace uq {

// What a form is called, and what it gives, in a line.
QString formTitle(TargetForm form);
QString formWords(TargetForm form);
// A form of one's own as it begins: the first of the gallery.
void begunOwn(Target& target);

class TargetCard : public QFrame {
  Q_OBJECT

 public:
  static constexpr int kWidth = 372;  // logical pixels

  TargetCard(Session* session, Exports* exports, Id target, QWidget* parent);

  Id target() const { return target_; }
  TargetForm form() const { return made_; }
  // Says what is so now; the sample anew where `looks`.
  void refresh(bool looks);
  void focusName();

 Q_SIGNALS:
  void formWanted(uq::Id target);
  void said(const QString& text);

 private:
  const Target* now() const;
  void change(const QString& name, const std::function<void(Target&)>& how);
  QLayout* buildOptions();
  void fillMaps();
  void chooseFolder();
  void showSample();
  // What is lost is counted anew where `looks`.
  void showWords(bool looks);

  Session* session_;
  Exports* exports_;
  Id target_;
  TargetForm made_ = TargetForm::json;  // for which it has its fields
  QLineEdit* name_;
  QLabel* form_;
  QLabel* sample_;
  QLabel* file_;
  QComboBox* cells_ = nullptr;
  QComboBox* of_ = nullptr;
  NumberField* scale_ = nullptr;
  QToolButton* hidden_ = nullptr;
  QComboBox* order_ = nullptr;
  NumberField* columns_ = nullptr;
  NumberField* bleed_ = nullptr;
  QToolButton* powers_ = nullptr;
  QToolButton* maps_;
  QToolButton* folder_;
  QLabel* words_;
  QString lost_;
  QToolButton* write_;
};

// A form that a quilt has no target of yet, with what would come out of it.
class OfferCard : public QFrame {
  Q_OBJECT

 public:
  OfferCard(Session* session, TargetForm form, QWidget* parent);

 Q_SIGNALS:
  void wanted();

 protected:
  void mouseReleaseEvent(QMouseEvent* event) override;
};

}  // namespace uq
