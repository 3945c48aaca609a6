// What goes with the rows of the action table: tools, menus, and words in the user's language.
#include <QCoreApplication>

#include "app/actions/ActionNeeds.h"
#include "app/actions/ActionTable.h"

namespace uq {

namespace {

constexpr std::pair<ActionId, Tool> kTools[] = {{ActionId::brush, Tool::brush},   {ActionId::erase, Tool::erase},
                                                {ActionId::box, Tool::box},       {ActionId::fill, Tool::fill},
                                                {ActionId::select, Tool::select}, {ActionId::line, Tool::line},
                                                {ActionId::oval, Tool::oval},     {ActionId::pins, Tool::pins}};

}  // namespace

std::optional<Tool> toolOf(ActionId id) {
  for (const auto& [action, tool] : kTools) {
    if (action == id) return tool;
  }
  return std::nullopt;
}

ActionId actionOf(Tool tool) {
  for (const auto& [action, one] : kTools) {
    if (one == tool) return action;
  }
  Q_UNREACHABLE();
}

QString translated(const char* text) { return QCoreApplication::translate("actions", text); }

QString menuText(Menu menu) {
  switch (menu) {
    case Menu::none: break;
    case Menu::quilt: return translated(UQ_TEXT("&Quilt"));
    case Menu::edit: return translated(UQ_TEXT("&Edit"));
    case Menu::map: return translated(UQ_TEXT("&Map"));
    case Menu::layers: return translated(UQ_TEXT("&Layers"));
    case Menu::view: return translated(UQ_TEXT("&View"));
    case Menu::check: return translated(UQ_TEXT("&Check"));
    case Menu::help: return translated(UQ_TEXT("&Help"));
  }
  return {};
}

}  // namespace uq
