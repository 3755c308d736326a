// What the floors test must see: Qt below the application, by its longer name.
#pragma once

#include <QtCore/QString>
