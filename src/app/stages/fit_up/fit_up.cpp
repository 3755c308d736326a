#include "app/stages/fit_up/fit_up.h"

#include "app/checks/check_edits.h"
#include "app/stages/fit_up/checks_page.h"
#include "app/stages/fit_up/cut_page.h"
#include "app/stages/fit_up/places_page.h"
#include "app/stages/fit_up/plan_page.h"
#include "app/stages/fit_up/questions.h"
#include "app/stages/fit_up/routes_page.h"
#include "app/stages/fit_up/schools_page.h"
#include "app/stages/fit_up/shop_page.h"
#include "app/stages/fit_up/templates_page.h"

namespace mavrel::app {

namespace {
enum Page { plan_page, checks_page, cut_page, templates_page, places_page, routes_page, schools_page, shop_page };
} // namespace

FitUpStage::FitUpStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page(tr("Plan"), plan_);
  add_page(tr("Checks"), checks_, {".checks."});
  add_page(tr("Cut and buy"), cut_, {".fit_up.parts."});
  add_page(tr("Templates"), templates_, {"_plates."});
  add_page(tr("Places"), places_, {"_at.", ".shown", ".handset", ".metal_box"});
  add_page(tr("Routes"), routes_, {".routes."});
  add_page(tr("Schools"), schools_);
  add_page(tr("Shop"), shop_, {"shop."});
}

void FitUpStage::made(int page) {
  if (page == plan_page) connect(plan_.get(), &PlanPage::wants_check, this, &FitUpStage::show_check);
}

void FitUpStage::show_check(const QString& id) {
  // The proof of the whole car has a stage of its own.
  if (const auto row = assess::row_of_check(id.toStdString()).first; row && row->stage == assess::CheckStage::proving) {
    emit desk_.went_to("proving", "check:" + id);
    return;
  }
  show_page(checks_page);
  checks_->show_check(id);
}

/// `job:rear.tack` is a job of the plan, `hold:rear.gaps` a hold point.
bool FitUpStage::go_to(const QString& path) {
  if (path.startsWith("hold:")) {
    show_check(path.mid(5));
    return true;
  }
  if (!path.startsWith("job:")) return PagedStage::go_to(path);
  show_page(plan_page);
  plan_->view()->hold(path.mid(4));
  return true;
}

bool FitUpStage::owns(const QString& path) const {
  return path.startsWith("shop.") || path.startsWith("job:") || path.startsWith("hold:") ||
         (path.startsWith("variants.") && path.contains(".fit_up.") && !is_of_proof(desk_, path));
}

std::vector<Command> FitUpStage::commands() {
  std::vector<Command> out = page_commands(tr("Fit-up"));
  const auto file = [&](const QString& name, int page, std::function<void()> act) {
    out.push_back(file_command(name, page, std::move(act)));
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
  if (const auto& plan = plan_of(desk_))
    for (const assess::Job& j : plan->jobs)
      out.push_back({desk_.words_of(j.name), tr("job"), [this, id = QString::fromStdString(j.id)] {
                       show_page(plan_page);
                       plan_->view()->hold(id);
                     }});
  for (const assess::HoldPoint& p : checks_of(desk_))
    if (p.row->stage != assess::CheckStage::proving)
      out.push_back({desk_.words_of(p.name), tr("hold point"), [this, id = QString::fromStdString(p.id)] {
                       show_page(checks_page);
                       checks_->show_check(id);
                     }});
  return out;
}

} // namespace mavrel::app
