cmake_minimum_required(VERSION 3.23)
# Nothing includes upward, and nothing below the application includes Qt. What each folder may stand on beside itself is
# said here once, the lowest first; a folder inherits the rows of those it lies in, and rooms of one floor see only the
# rooms they name. A folder without a row of its own is its parent's.
set(rows
  "quantity:"
  "file: quantity"
  "parallel:"
  "curve:"
  "air: quantity curve"
  "space: curve"
  "motion: quantity curve space"
  "control: quantity curve air"
  "work: quantity"
  "build: quantity file curve control"
  "book: quantity parallel file work build"
  "shelf: quantity file curve air build control"
  "assess: quantity parallel file curve air space motion control work build shelf"
  "assess/height:"
  "assess/finding:"
  "assess/kept:"
  "assess/survey: assess/kept assess/finding"
  "assess/motion: assess/survey assess/kept"
  "assess/clearance: assess/motion assess/survey assess/height assess/kept"
  "assess/kit:"
  "assess/sampling: assess/end assess/kit"
  "assess/routes:"
  "assess/air: assess/routes assess/search assess/kit assess/end assess/clearance assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/leveling: assess/routes assess/air assess/bags assess/search assess/kit assess/end assess/clearance assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/fit_up: assess/leveling assess/routes assess/air assess/swing assess/interference assess/bags assess/search assess/kit assess/end assess/clearance assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/proving: assess/fit_up assess/leveling assess/routes assess/air assess/kit assess/end assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/faults: assess/proving assess/fit_up assess/leveling assess/routes assess/air assess/kit assess/end assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/doubt: assess/sampling assess/air assess/routes assess/ground assess/interference assess/end assess/kit assess/clearance assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/care: assess/faults assess/proving assess/fit_up assess/leveling assess/routes assess/air assess/kit assess/end assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/next: assess assess/care assess/ground assess/proving assess/fit_up assess/leveling assess/air assess/end assess/finding"
  "assess/end: assess/kit assess/clearance assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/bags: assess/interference assess/end assess/clearance assess/survey assess/height assess/finding"
  "assess/search: assess/sampling assess/kit assess/bags assess/end assess/clearance"
  "assess/interference: assess/end assess/clearance assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/why: assess/sampling assess/search assess/end assess/clearance assess/survey assess/motion assess/height assess/kept"
  "assess/ground: assess/end assess/kept assess/finding"
  "assess/swing: assess/end assess/clearance assess/motion assess/survey assess/height assess/kept assess/finding"
  "assess/compare: assess assess/fit_up assess/end assess/finding"
  "link: quantity air control"
  "report: quantity file curve air space control work build shelf assess assess/*"
  "rig: quantity file air control build shelf assess assess/* link"
  "cli: quantity file curve air space motion control work build book shelf assess assess/* report app/print"
  "app: quantity file curve air space motion control work link build book shelf assess assess/* report"
  "app/print:"
  "app/theme:"
  "app/desk: app/theme"
  "app/kit: app/desk app/theme"
  "app/checks: app/kit app/desk app/theme"
  "app/stages/*: app/checks app/kit app/desk app/theme app/print"
  "app/shell: app/stages/* app/kit app/desk app/theme app/print"
)

# The rooms of a floor that stands on them all, like assess itself and the program's main file.
set(whole assess app)

function(row_of folder out)
  # The nearest row up the tree, and with it those above.
  set(may "")
  set(at "${folder}")
  while(NOT at STREQUAL "" AND NOT at STREQUAL ".")
    foreach(row ${rows})
      string(REGEX MATCH "^([^:]+):(.*)$" _ "${row}")
      set(name "${CMAKE_MATCH_1}")
      set(list "${CMAKE_MATCH_2}")
      string(REPLACE "/*" "/[^/]+" pattern "${name}")
      if(at MATCHES "^${pattern}$")
        string(REPLACE " " ";" list "${list}")
        list(APPEND may ${list} "${at}")
      endif()
    endforeach()
    get_filename_component(at "${at}" DIRECTORY)
  endwhile()
  set(${out} "${may}" PARENT_SCOPE)
endfunction()

# The folder that a row speaks of: of app/stages/bags/questions it is app/stages/bags.
function(room_of folder out)
  set(at "${folder}")
  while(NOT at STREQUAL "")
    foreach(row ${rows})
      string(REGEX MATCH "^[^:]+" name "${row}")
      string(REPLACE "/*" "/[^/]+" pattern "${name}")
      if(at MATCHES "^${pattern}$")
        set(${out} "${at}" PARENT_SCOPE)
        return()
      endif()
    endforeach()
    get_filename_component(at "${at}" DIRECTORY)
  endwhile()
  set(${out} "" PARENT_SCOPE)
endfunction()

file(GLOB_RECURSE files RELATIVE ${SOURCE} ${SOURCE}/*.h ${SOURCE}/*.cpp)
foreach(file ${files})
  get_filename_component(folder "${file}" DIRECTORY)
  room_of("${folder}" room)
  if(room STREQUAL "")
    message(SEND_ERROR "${file}: no row of tests/floors.cmake speaks of ${folder}")
    continue()
  endif()
  row_of("${room}" may)
  string(REGEX MATCH "^[^/]+" floor "${room}")
  file(STRINGS ${SOURCE}/${file} includes REGEX "^#include")
  foreach(line ${includes})
    if(NOT floor STREQUAL "app" AND line MATCHES "[<\"](Q[A-Z]|Qt)[A-Za-z]*[/>\"]|[<\"]q[a-z]+\\.h[>\"]")
      message(SEND_ERROR "${file}: ${line}: nothing below app includes Qt")
    endif()
    if(NOT line MATCHES "\"([a-z_/]+)/[a-z_]+\\.h\"")
      continue()
    endif()
    room_of("${CMAKE_MATCH_1}" other)
    if(other STREQUAL "" OR other STREQUAL room)
      continue()
    endif()
    # A floor's own files put its rooms together.
    if(room IN_LIST whole AND other MATCHES "^${room}/")
      continue()
    endif()
    set(fine FALSE)
    foreach(one ${may})
      string(REPLACE "/*" "/[^/]+" pattern "${one}")
      if(other MATCHES "^${pattern}$")
        set(fine TRUE)
      endif()
    endforeach()
    if(other STREQUAL floor AND NOT room STREQUAL floor AND NOT room MATCHES "^assess/(compare|next)$")
      set(fine FALSE) # a room does not stand on the whole it is a part of
    endif()
    if(NOT fine)
      message(SEND_ERROR "${file}: ${line}: ${room} does not stand on ${other}")
    endif()
  endforeach()
endforeach()
