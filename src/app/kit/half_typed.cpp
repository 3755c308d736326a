#include "app/kit/half_typed.h"

#include "app/desk/desk.h"

#include <QLineEdit>

namespace mavrel::app {

void settle_line(Desk& desk, QLineEdit* line, std::function<std::optional<QString>()> take) {
  QObject::connect(&desk.document(), &Document::settling, line,
                   [&desk, line, take = std::move(take)](Unfinished unfinished) {
                     if (!line->isModified()) return;
                     line->setModified(false); // taken once, whatever hears of the change
                     const auto wrong = take();
                     if (!wrong) return;
                     desk.tell(*wrong); // whoever settles it need not say it
                     desk.document().could_not_take(*wrong);
                     line->setModified(unfinished == Unfinished::keep);
                   });
}

} // namespace mavrel::app
