// What every page of Fit-up has: a plain page, and the answers that all of them read.
#pragma once

#include "app/kit/plain_page.h"

namespace mavrel::app {

class FitUpAnswers;

class FitUpPage : public PlainPage {
public:
  FitUpPage(Desk& desk, FitUpAnswers& answers, QWidget* parent) : PlainPage(desk, parent), answers_(answers) {}

protected:
  FitUpAnswers& answers_;
};

} // namespace mavrel::app
