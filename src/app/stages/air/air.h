// Air: compressor to bag. Pages: a lift, the kit, sizing, water and leaks, wiring, and the room it takes.
#pragma once

#include "app/kit/paged_stage.h"

namespace mavrel::app {

class KitPage;
class LiftPage;
class RoomPage;
class SizingPage;
class WetPage;
class WiringPage;

class AirStage : public PagedStage {
  Q_OBJECT
public:
  explicit AirStage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool owns(const QString& path) const override;
  [[nodiscard]] std::vector<Command> commands() override;
  [[nodiscard]] std::vector<Findable> findables() override;
  QStringList take_files(const QStringList& files) override;

  // Pages: 0 a lift, 1 the kit, 2 sizing, 3 water and leaks, 4 wiring, 5 room.
  [[nodiscard]] LiftPage* lift() const { return lift_.get(); }

private:
  void take_parts(const QString& file);
  void write_parts();
  void write_kit();

  LazyPage<LiftPage> lift_;
  LazyPage<KitPage> kit_;
  LazyPage<SizingPage> sizing_;
  LazyPage<WetPage> wet_;
  LazyPage<WiringPage> wiring_;
  LazyPage<RoomPage> room_;
};

} // namespace mavrel::app
