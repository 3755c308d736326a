#include "app/stages/fit_up/fit_up.h"

#include "app/desk/desk.h"
#include "app/kit/check_edits.h"
#include "app/stages/fit_up/answers.h"
#include "app/stages/fit_up/checks_page.h"
#include "app/stages/fit_up/cut_page.h"
#include "app/stages/fit_up/places_page.h"
#include "app/stages/fit_up/plan_page.h"
#include "app/stages/fit_up/routes_page.h"
#include "app/stages/fit_up/schools_page.h"
#include "app/stages/fit_up/shop_page.h"
#include "app/stages/fit_up/templates_page.h"

namespace mavrel::app {

namespace {
enum Page { plan_page, checks_page, cut_page, templates_page, places_page, routes_page, schools_page, shop_page };
} // namespace

FitUpStage::FitUpStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent), answers_(new FitUpAnswers(desk, this)) {
  add_page<PlanPage>(tr("Plan"), plan_, [this] {
    auto* made = new PlanPage(desk_, *answers_, this);
    connect(made, &PlanPage::wants_check, this, [this](const QString& id) {
      // The proof of the whole car has a stage of its own.
      if (const auto row = assess::row_of_check(id.toStdString()).first;
          row && row->stage == assess::CheckStage::proving) {
        emit desk_.went_to("proving", "check:" + id);
        return;
      }
      show_page(checks_page);
      checks_->show_check(id);
    });
    return made;
  });
  add_page<ChecksPage>(tr("Checks"), checks_, [this] { return new ChecksPage(desk_, *answers_, this); });
  add_page<CutPage>(tr("Cut and buy"), cut_, [this] { return new CutPage(desk_, *answers_, this); });
  add_page<TemplatesPage>(tr("Templates"), templates_, [this] { return new TemplatesPage(desk_, *answers_, this); });
  add_page<PlacesPage>(tr("Places"), places_, [this] { return new PlacesPage(desk_, *answers_, this); });
  add_page<RoutesPage>(tr("Routes"), routes_, [this] { return new RoutesPage(desk_, *answers_, this); });
  add_page<SchoolsPage>(tr("Schools"), schools_, [this] { return new SchoolsPage(desk_, *answers_, this); });
  add_page<ShopPage>(tr("Shop"), shop_, [this] { return new ShopPage(desk_, this); });
}

bool FitUpStage::takes_arrows() const {
  return (page() == plan_page && plan_->view()->hasFocus()) || (page() == places_page && places_->view()->hasFocus()) ||
         (page() == routes_page && routes_->view()->hasFocus());
}

bool FitUpStage::owns(const QString& path) const {
  return path.startsWith("shop.") ||
         (path.startsWith("variants.") && path.contains(".fit_up.") && !is_of_proof(desk_, path));
}

bool FitUpStage::go_to(const QString& path) {
  if (path.startsWith("shop.")) {
    show_page(shop_page);
    return shop_->go_to(path);
  }
  if (path.contains(".checks.")) {
    show_page(checks_page);
    return checks_->go_to(path);
  }
  if (path.contains(".routes.")) {
    show_page(routes_page);
    return routes_->go_to(path);
  }
  if (path.contains("_plates.")) {
    show_page(templates_page);
    return templates_->go_to(path);
  }
  if (path.contains(".parts.")) {
    show_page(cut_page);
    return cut_->go_to(path);
  }
  if (path.contains("_at.") || path.endsWith(".shown") || path.endsWith(".handset") || path.endsWith(".metal_box")) {
    show_page(places_page);
    return places_->go_to(path);
  }
  show_page(plan_page);
  return plan_->go_to(path) || path.endsWith(".order");
}

std::vector<Command> FitUpStage::commands() {
  std::vector<Command> out = page_commands(tr("Fit-up"));
  const auto file = [&](const QString& name, int page, std::function<void()> act) {
    out.push_back({Command::Menu::file, name, {}, [this, page, act = std::move(act)] {
                     emit called();
                     show_page(page);
                     act();
                   }});
  };
  file(tr("Job sheets for the wall as PDF …"), plan_page, [this] { plan_->write_sheets(); });
  file(tr("Write the plan as CSV …"), plan_page, [this] { plan_->write_csv(); });
  file(tr("Write the cut list as CSV …"), cut_page, [this] { cut_->write_cut(); });
  file(tr("Write the parts list as CSV …"), cut_page, [this] { cut_->write_buy(); });
  file(tr("Templates 1:1 as PDF …"), templates_page, [this] { templates_->write_pdf_of_all(); });
  file(tr("Templates as DXF …"), templates_page, [this] { templates_->write_dxf(); });
  file(tr("Templates as SVG …"), templates_page, [this] { templates_->write_svg(); });
  file(tr("Write the labels as CSV …"), routes_page, [this] { routes_->write_labels(); });
  return out;
}

std::vector<Findable> FitUpStage::findables() {
  std::vector<Findable> out;
  if (const auto& plan = answers_->plan())
    for (const assess::Job& j : plan->jobs)
      out.push_back({desk_.words_of(j.name), tr("job"), [this, id = QString::fromStdString(j.id)] {
                       show_page(plan_page);
                       plan_->view()->hold(id);
                     }});
  for (const assess::HoldPoint& p : answers_->checks())
    if (p.row->stage != assess::CheckStage::proving)
      out.push_back({desk_.words_of(p.name), tr("hold point"), [this, id = QString::fromStdString(p.id)] {
                       show_page(checks_page);
                       checks_->show_check(id);
                     }});
  return out;
}

} // namespace mavrel::app
