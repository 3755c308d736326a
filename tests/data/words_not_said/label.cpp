// A label that docs/words.md forbids: the check must see it.
const char* label() {
  return tr("Strike out the row");
}
