cmake_minimum_required(VERSION 3.23)
# A label takes what looks like markup for markup, and markup reads files: every label of the application is a PlainLabel
# (app/kit/plain.h), and every question with a text of somebody's in it goes through app/kit/ask.h.
file(GLOB_RECURSE files ${SOURCE}/*.cpp ${SOURCE}/*.h)
list(FILTER files EXCLUDE REGEX "/kit/plain\\.(h|cpp)$")
foreach(file ${files})
  file(STRINGS ${file} labels REGEX "(new QLabel[ ({]|QMessageBox::(question|warning|information|critical)\\()")
  foreach(line ${labels})
    message(SEND_ERROR "${file}: ${line} … takes text for markup: PlainLabel, or ask(), is right")
  endforeach()
endforeach()
