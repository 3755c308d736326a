// Cars read more surely, or less, than they were.
#pragma once

#include "build/build.h"

#include <initializer_list>

namespace mavrel::test {

/// Every tool so many times as doubtful, and each reading taken once: repeats that differ are what they are, whatever
/// the tools. @param times  0: nobody doubts any of it
inline build::Build doubted(build::Build build, double times) {
  build::Doubts& d = build.doubts;
  for (double* one : {&d.tape, &d.calliper, &d.point, &d.scale, &d.scale_shared, &d.level, &d.level_shared, &d.angle,
                      &d.ratio, &d.gauge, &d.card, &d.part, &d.estimate})
    *one *= times;
  for (const build::End e : build::both_ends) {
    build::EndSurvey& end = build.end(e);
    for (build::Readings* r : {&end.corners[0].height, &end.corners[1].height, &end.corners[0].mass,
                               &end.corners[1].mass, &end.spring_length, &end.motion_ratio})
      if (r->values.size() > 1) r->values = {r->values.front()};
  }
  return build;
}

} // namespace mavrel::test
