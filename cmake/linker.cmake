# A quick linker where one is installed: what changes is seen sooner, what is built is the same.
foreach(linker mold lld)
  find_program(MAVREL_${linker} NAMES ${linker} ld.${linker})
  if(MAVREL_${linker})
    add_link_options(-fuse-ld=${linker})
    message(STATUS "Linked by ${linker}")
    return()
  endif()
endforeach()
