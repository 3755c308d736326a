# One folder of src with all its rooms, one library, and what it may stand on. A floor sees only the floors it names here; the
# include paths are the same for all, so tests/floors.cmake checks the includes themselves.
function(mavrel_floor name)
  cmake_parse_arguments(FLOOR "" "" "ON" ${ARGN})
  file(GLOB_RECURSE sources CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${name}/*.cpp)
  add_library(mavrel_${name} STATIC ${sources})
  target_include_directories(mavrel_${name} PUBLIC ${CMAKE_CURRENT_SOURCE_DIR})
  target_link_libraries(mavrel_${name} PUBLIC ${FLOOR_ON})
  mavrel_batches(mavrel_${name} 6)
endfunction()
