// What tests/plain.cmake must find.
auto* label = new QLabel(name, parent);
