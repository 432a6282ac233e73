#pragma once

#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <cstdio>
#include <nlohmann/json.hpp>
#include <stdexcept>
#include <string>
#include <vector>

namespace sunbreak::bench {

using nlohmann::json;

/// The NumPy script as a running process that answers one line to each line.
class Peer {
 public:
  explicit Peer(const char* script) {
    signal(SIGPIPE, SIG_IGN);
    int in[2], out[2];
    if (pipe(in) != 0 || pipe(out) != 0) throw std::runtime_error("no pipe");
    process_ = fork();
    if (process_ == 0) {
      dup2(in[0], STDIN_FILENO);
      dup2(out[1], STDOUT_FILENO);
      for (const int end : {in[0], in[1], out[0], out[1]}) close(end);
      execl("/usr/bin/python3", "python3", script, nullptr);
      _exit(127);
    }
    close(in[0]);
    close(out[1]);
    to_ = fdopen(in[1], "w");
    from_ = fdopen(out[0], "r");
  }
  ~Peer() {
    fclose(to_);
    fclose(from_);
    waitpid(process_, nullptr, 0);
  }
  void send(const std::string& line) {
    fputs((line + "\n").c_str(), to_);
    fflush(to_);
  }
  json ask() {
    send("again");
    std::string line;
    for (int c; (c = fgetc(from_)) != EOF && c != '\n';) line += static_cast<char>(c);
    if (line.empty())
      throw std::runtime_error("the peer gave no answer: are python3-numpy and python3-scipy installed?");
    return json::parse(line);
  }

 private:
  pid_t process_ = 0;
  FILE *to_ = nullptr, *from_ = nullptr;
};

inline double median(std::vector<double> values) {
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2), values.end());
  return values[values.size() / 2];
}

}  // namespace sunbreak::bench
