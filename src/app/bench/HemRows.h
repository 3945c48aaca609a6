// HemRows: what an edging brings along, one line each: "[face] below [wall] [3] rows on [things] …", and a button that takes what is in
// hand as one more. Each press is one step. Threads: the interface's.
#pragma once

#include <QToolButton>
#include <QWidget>
#include <functional>

#include "core/document/Edging.h"

class QVBoxLayout;

namespace uq {

class Session;

class HemRows : public QWidget {
  Q_OBJECT

 public:
  explicit HemRows(QWidget* parent);

  // Shows those of an edging; the session must outlive what is shown.
  void show(Session& session, const Edging& edging);
  // The material along which the next one is brought.
  void setAlong(MaterialIndex material) { along_ = material; }

 Q_SIGNALS:
  void changed(const QString& step, const Edging& edging);
  void said(const QString& text);

 private:
  using Change = std::function<void(Edging&, Hem&)>;
  QWidget* makeRow(std::size_t hem);
  void fillMore(class QMenu* menu, std::size_t hem);
  void edit(std::size_t hem, const QString& step, const Change& change);
  void add();
  const Edging* now() const;

  Session* session_ = nullptr;
  Id edging_;
  MaterialIndex along_ = 0;
  QVBoxLayout* rows_;
  QToolButton* add_;
  std::vector<Hem> shown_;
};

}  // namespace uq
