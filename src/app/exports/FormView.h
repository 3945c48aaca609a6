// FormView: a form of one's own: its text on the left, what comes of it on the right, live, and a gallery to begin with.
//
// The text is the quilt's as soon as it is left, closed or exported: one step. What is wrong is said with its line, which is marked.
// Threads: the interface's.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPointer>
#include <QTimer>
#include <QToolButton>

#include "app/exports/Exports.h"
#include "app/workroom/Session.h"

namespace uq {

class FormView : public QWidget {
  Q_OBJECT

 public:
  FormView(Exports* exports, QWidget* parent);

  void setSession(Session* session);
  void open(Id target);
  // Keeps what is written as a step of the quilt.
  void take();
  // What comes of it now.
  void look();

  // A form to begin with.
  struct Example {
    QString file;   // "level.lua.mustache"
    QString title;
    QString text;
  };
  static std::vector<Example> gallery();

 Q_SIGNALS:
  void left();
  void said(const QString& text);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  const Target* now() const;
  Target written() const;
  void begin(const Example& example);
  void markLine(int line);

  QPointer<Session> session_;
  Exports* exports_;
  Id target_;
  QLabel* title_;
  QPlainTextEdit* text_;
  QPlainTextEdit* result_;
  QLineEdit* naming_;
  QLineEdit* ending_;
  QComboBox* escape_;
  QLabel* words_;
  QTimer soon_;
};

}  // namespace uq
