// The shelf of part cards: what there is to choose from, and the folder that the user's own are kept in.
#pragma once

#include "shelf/shelf.h"

#include <QObject>

#include <filesystem>
#include <optional>

namespace mavrel::app {

class CardShelf : public QObject {
  Q_OBJECT
public:
  explicit CardShelf(shelf::Shelf shelf, QObject* parent = nullptr);

  [[nodiscard]] const shelf::Shelf& shelf() const { return shelf_; }
  /// Reads the shelf's folders again.
  void reload();
  /// Writes a card to the user's shelf and puts it on this one. @returns the file; or why not
  [[nodiscard]] Expected<std::filesystem::path> keep(const air::BagCard& card);
  /// The same of several at once. @returns for each its file, or why not
  [[nodiscard]] std::vector<Expected<std::filesystem::path>> keep_all(const std::vector<air::BagCard>& cards);
  /// Writes parts of an air kit to the user's shelf and puts them on this one. @returns the file; or why not
  [[nodiscard]] Expected<std::filesystem::path> keep(const std::vector<shelf::Part>& parts);
  /// The card of this name on the user's own shelf, as its file has it; none where there is none.
  [[nodiscard]] std::optional<air::BagCard> own(const std::string& name) const;
  /// The same of several names, in their order.
  [[nodiscard]] std::vector<std::optional<air::BagCard>> own(const std::vector<std::string>& names) const;
  /// The folder user cards go to; empty: the usual one.
  [[nodiscard]] const std::filesystem::path& folder() const { return folder_; }
  void set_folder(std::filesystem::path folder) { folder_ = std::move(folder); }

signals:
  void changed();

private:
  [[nodiscard]] std::filesystem::path own_folder() const;

  shelf::Shelf shelf_;
  std::filesystem::path folder_;
};

} // namespace mavrel::app
