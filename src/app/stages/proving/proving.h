// Proving: the whole car measured against what was predicted, what that teaches, and its hand-over.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class HandPage;
class LearnPage;
class ProvePage;

class ProvingStage : public PagedStage {
  Q_OBJECT
public:
  explicit ProvingStage(Desk& desk, QWidget* parent = nullptr);
  bool go_to(const QString& path) override;
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;
  QStringList take_files(const QStringList& files) override;

private:
  LazyPage<ProvePage> prove_;
  LazyPage<LearnPage> learn_;
  LazyPage<HandPage> hand_;
};

} // namespace mavrel::app
