# What is installed works where it is put: the programs find their shelf and demo beside them, the desktop finds the rest.
file(REMOVE_RECURSE ${PREFIX})
execute_process(COMMAND ${CMAKE_COMMAND} --install ${BUILD} --prefix ${PREFIX} RESULT_VARIABLE status OUTPUT_QUIET)
if(NOT status EQUAL 0)
  message(FATAL_ERROR "it does not install")
endif()
foreach(wanted bin/mavrel bin/mavrel-cli bin/mavrel-rig share/applications/mavrel.desktop share/mime/packages/mavrel.xml
        share/metainfo/org.mavrel.Mavrel.metainfo.xml share/icons/hicolor/scalable/apps/mavrel.svg share/man/man1/mavrel.1.gz
        share/man/man1/mavrel-cli.1.gz share/doc/mavrel/copyright share/doc/mavrel/changelog.gz
        share/mavrel/shelf/osier-o135.csv share/mavrel/demo/sorrel-wayfare.mavrel share/mavrel/demo/hollin-tarnway.mavrel)
  if(NOT EXISTS ${PREFIX}/${wanted})
    message(FATAL_ERROR "${wanted} is not installed")
  endif()
endforeach()
foreach(car sorrel-wayfare hollin-tarnway)
  execute_process(COMMAND ${CMAKE_COMMAND} -E env XDG_DATA_HOME=${PREFIX}/nobody ${PREFIX}/bin/mavrel-cli assess ${PREFIX}/share/mavrel/demo/${car}.mavrel
                  RESULT_VARIABLE status OUTPUT_VARIABLE said ERROR_VARIABLE wrong)
  if(NOT status EQUAL 0 OR said MATCHES "bag_not_on_shelf")
    message(FATAL_ERROR "the installed program can't assess ${car}: ${wrong}")
  endif()
endforeach()
