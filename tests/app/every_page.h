// Every page and every tab of the window, one after the other.
#pragma once

#include "app/kit/paged_stage.h"
#include "app/shell/stages.h"
#include "app/window_fixture.h"

#include <QTabBar>

namespace mavrel::app {

/// What is asked for inside a page gets to the window a layout at a time.
inline void settle_events() {
  for (int i = 0; i < 12; ++i)
    QCoreApplication::processEvents();
}

/// @param look  called with where it is, `fit_up 2`; may go elsewhere
inline void on_every_page(MainWindow& window, const std::function<void(const QString&)>& look) {
  for (const StageEntry& entry : stage_entries()) {
    if (!entry.closed(window.desk()).isEmpty()) continue;
    StagePage* stage = window.stage(entry.key);
    auto* paged = dynamic_cast<PagedStage*>(stage);
    for (int page = 0;; ++page) {
      const auto go = [&] {
        window.go_to_stage(entry.key);
        if (paged) paged->show_page(page);
        settle_events();
        return paged ? paged->page() == page : page == 0;
      };
      if (!go()) break;
      const QString at = QString("%1 %2").arg(entry.key).arg(page);
      look(at);
      go();
      std::vector<QPointer<QTabBar>> bars;
      for (QTabBar* tabs : stage->findChildren<QTabBar*>())
        if (tabs->isVisible()) bars.emplace_back(tabs);
      for (const QPointer<QTabBar>& tabs : bars) {
        const int count = tabs ? tabs->count() : 0;
        for (int tab = 1; tabs && tab < count; ++tab) {
          go();
          tabs->setCurrentIndex(tab);
          settle_events();
          look(QString("%1 tab %2").arg(at, tabs->tabText(tab)));
        }
        if (tabs) tabs->setCurrentIndex(0);
      }
    }
  }
}

} // namespace mavrel::app
