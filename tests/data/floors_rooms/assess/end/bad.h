#include "assess/bags/judge.h"
