// The built mavrel-cli, run through a shell.
#pragma once

#include "support.h"

#include <cstdio>
#include <sys/wait.h>

namespace mavrel::test {

struct Answer {
  int status = -1; // the exit code; 128 and more: ended by a signal
  std::string out, err;
};

/// @param arguments    as a shell reads them; may redirect standard output
/// @param environment  what is set for it, as a shell reads it
inline Answer run(const std::string& arguments, const std::string& environment = {}) {
  const Folder folder;
  const auto err = folder / "err";
  Answer answer;
  const std::string command = environment + " " + MAVREL_CLI + " " + arguments + " 2>" + err.string();
  FILE* pipe = ::popen(command.c_str(), "r");
  char buffer[4096];
  for (std::size_t n; (n = std::fread(buffer, 1, sizeof buffer, pipe)) > 0;)
    answer.out.append(buffer, n);
  answer.status = WEXITSTATUS(::pclose(pipe));
  answer.err = text_of(err);
  return answer;
}

} // namespace mavrel::test
