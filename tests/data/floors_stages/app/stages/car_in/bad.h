#include "app/stages/bags/bags.h"
