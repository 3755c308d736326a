# What an installed Mavrel is: three programs, the shelf and demo car, and what the desktop wants to know.
install(TARGETS mavrel mavrel-cli mavrel-rig RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
install(DIRECTORY demo/shelf DESTINATION ${CMAKE_INSTALL_DATADIR}/mavrel)
install(DIRECTORY demo/ DESTINATION ${CMAKE_INSTALL_DATADIR}/mavrel/demo FILES_MATCHING PATTERN "*.mavrel" PATTERN "shelf" EXCLUDE)
install(FILES packaging/mavrel.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
install(FILES packaging/mavrel-mime.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages RENAME mavrel.xml)
install(FILES packaging/org.mavrel.Mavrel.metainfo.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo)
install(FILES src/app/icons/mavrel.svg DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
# Manual and changelog as Debian wants them: compressed, and the same bytes from the same sources.
find_program(GZIP gzip REQUIRED)
function(mavrel_compressed from to)
  add_custom_command(OUTPUT ${CMAKE_BINARY_DIR}/${to} DEPENDS ${PROJECT_SOURCE_DIR}/${from}
    COMMAND ${GZIP} -9nc ${PROJECT_SOURCE_DIR}/${from} > ${CMAKE_BINARY_DIR}/${to})
endfunction()
mavrel_compressed(docs/man/mavrel.1 mavrel.1.gz)
mavrel_compressed(packaging/debian-changelog changelog.gz)
add_custom_target(compressed ALL DEPENDS ${CMAKE_BINARY_DIR}/mavrel.1.gz ${CMAKE_BINARY_DIR}/changelog.gz)
install(FILES ${CMAKE_BINARY_DIR}/mavrel.1.gz DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(FILES ${CMAKE_BINARY_DIR}/mavrel.1.gz DESTINATION ${CMAKE_INSTALL_MANDIR}/man1 RENAME mavrel-cli.1.gz)
install(FILES ${CMAKE_BINARY_DIR}/mavrel.1.gz DESTINATION ${CMAKE_INSTALL_MANDIR}/man1 RENAME mavrel-rig.1.gz)
install(FILES ${CMAKE_BINARY_DIR}/changelog.gz DESTINATION ${CMAKE_INSTALL_DOCDIR})

# The font's licence stands with its own text in the one file that names every licence.
file(READ packaging/copyright copyright)
file(READ third_party/mavrel-text/LICENCE font_licence)
string(FIND "${font_licence}" "License: OFL-1.1\n -" from)
string(SUBSTRING "${font_licence}" ${from} -1 font_licence)
string(REGEX REPLACE "\n\n.*" "\n" font_licence "${font_licence}")
file(WRITE ${CMAKE_BINARY_DIR}/copyright "${copyright}${font_licence}")
install(FILES ${CMAKE_BINARY_DIR}/copyright DESTINATION ${CMAKE_INSTALL_DOCDIR})

set(CMAKE_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS OWNER_READ OWNER_WRITE OWNER_EXECUTE GROUP_READ GROUP_EXECUTE WORLD_READ WORLD_EXECUTE)
set(CPACK_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS ${CMAKE_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS})
set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_CONTACT "Mavrel developers <developers@mavrel.invalid>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "air suspension for lowered cars, worked out first")
set(CPACK_PACKAGE_DESCRIPTION "Mavrel takes the measurements of a car as it stands, judges every bag on the
shelf on each of its corners, and shows over height what stops it, what it will
ride like and what pressure it needs.
.
It comes with a window, mavrel, a command line, mavrel-cli, that gives the
same answers as JSON, a rig, mavrel-rig, that plays a car, and with made-up demo cars and bags to try it on.")
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SECTION science)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_STRIP_FILES ON)
include(CPack)
