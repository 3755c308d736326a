# Files of one folder are compiled together, a few at a time: their headers are read once. Where MAVREL_UNITY is off (the
# preset `plain`) each is compiled alone, which is quicker to change one file in and shows a header that is not whole.
# @param most  files in one batch
function(mavrel_batches target most)
  if(NOT MAVREL_UNITY)
    return()
  endif()
  get_target_property(sources ${target} SOURCES)
  foreach(source ${sources})
    if(NOT source MATCHES "\\.cpp$")
      continue()
    endif()
    get_filename_component(folder ${source} DIRECTORY)
    string(MAKE_C_IDENTIFIER "${folder}" room)
    if(NOT DEFINED count_${room})
      set(count_${room} 0)
    endif()
    math(EXPR batch "${count_${room}} / ${most}")
    math(EXPR count_${room} "${count_${room}} + 1")
    string(REGEX REPLACE ".*_(src|tests)_" "" short "${room}")
    set_source_files_properties(${source} PROPERTIES UNITY_GROUP "${short}_${batch}")
  endforeach()
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP)
endfunction()

# What makes sentences, sheets and widgets is waited for by nobody: it is built for little code rather than for speed.
function(mavrel_unhurried target)
  target_compile_options(${target} PRIVATE $<$<CONFIG:Release>:-O1>)
endfunction()
