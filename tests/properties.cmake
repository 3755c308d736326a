cmake_minimum_required(VERSION 3.23)
# A property whose answer nobody looks at can't fail: every rc::check stands in an EXPECT_TRUE or ASSERT_TRUE.
file(GLOB_RECURSE files ${SOURCE}/*.cpp ${SOURCE}/*.h)
list(FILTER files EXCLUDE REGEX "^${SOURCE}/data/") # what is there to be found is no test of ours
foreach(file ${files})
  file(STRINGS ${file} dropped REGEX "^[ \t]*rc::check\\(")
  foreach(line ${dropped})
    message(SEND_ERROR "${file}: ${line} … is dropped: EXPECT_TRUE(rc::check(…)) is right")
  endforeach()
endforeach()
