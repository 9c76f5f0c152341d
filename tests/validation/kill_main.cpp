/// Kills (-9) an editing script at random moments and looks at what is left: every design opens, and no more than the last two seconds
/// of edits are lost. Each trial is told by its number, and comes again with it: vetchling_kill COUNT [FIRST].
#include "core/files/design_file.h"
#include "tests/temp_folder.h"
#include "tests/validation/kill_editor.h"

#include <atomic>
#include <chrono>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <fcntl.h>
#include <filesystem>
#include <fstream>
#include <mutex>
#include <random>
#include <sstream>
#include <sys/wait.h>
#include <thread>
#include <unistd.h>

namespace fs = std::filesystem;

namespace vetchling::testing {
namespace {

constexpr long long mayBeLost = 2000; // ms
constexpr int rounds = 3, atOnce = 4;

long long now()
{
    return std::chrono::duration_cast<std::chrono::milliseconds>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

struct Edits {
    int beforeTheLast = -1; ///< newest one that must not be lost
    int last = -1;
    int status = 0;
};

/// Runs the script for a while and kills it.
Edits editAndKill(const std::string& folder, unsigned seed, long long milliseconds)
{
    const std::string told = folder + "/told";
    const pid_t child = ::fork();
    if (child == 0) {
        const int out = ::open(told.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0600);
        ::dup2(out, STDOUT_FILENO);
        ::execl("/proc/self/exe", "vetchling_kill", "--edit", folder.c_str(), std::to_string(seed).c_str(), nullptr);
        ::_exit(127);
    }
    std::this_thread::sleep_for(std::chrono::milliseconds(milliseconds));
    const long long killed = now();
    ::kill(child, SIGKILL);
    Edits edits;
    ::waitpid(child, &edits.status, 0);
    std::ifstream lines(told);
    int number = 0;
    long long when = 0;
    for (std::string line; std::getline(lines, line);)
        if (std::sscanf(line.c_str(), "%d %lld", &number, &when) == 2) {
            edits.last = number;
            if (when <= killed - mayBeLost)
                edits.beforeTheLast = number;
        }
    return edits;
}

/// The newest edit in a file; throws words where it does not open whole.
int newestIn(const fs::path& file, bool copy)
{
    std::ifstream in(file);
    std::string first, text;
    if (copy)
        std::getline(in, first);
    text.assign(std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>());
    const auto design = files::parseDesign(text);
    if (!design || design->damage)
        throw std::runtime_error(file.filename().string() +
                                 " is damaged: " + (design ? design->damage->faults().front().text() : design.firstFault()));
    return editOf(design->site.notes);
}

int newestLeft(const fs::path& folder)
{
    int newest = newestIn(folder / "design.vetchling", false);
    if (fs::exists(folder / "autosave"))
        for (const auto& entry : fs::directory_iterator(folder / "autosave"))
            if (entry.path().extension() == ".unsaved")
                newest = std::max(newest, newestIn(entry.path(), true));
    return newest;
}

/// What broke; empty if all was well.
std::string trial(unsigned number)
{
    const TempFolder folder;
    fs::copy_file(VETCHLING_DATA "/demo/gannet-skerry.vetchling", folder.path() / "design.vetchling");
    std::mt19937 random(number);
    for (int round = 0; round < rounds; ++round) {
        const Edits edits = editAndKill(folder.path().string(), number * rounds + unsigned(round), 50 + (long long)(random() % 3500));
        if (!WIFSIGNALED(edits.status))
            return "round " + std::to_string(round) + ": what was left could not be taken up";
        try {
            const int left = newestLeft(folder.path());
            if (left < edits.beforeTheLast)
                return "round " + std::to_string(round) + ": edit " + std::to_string(edits.beforeTheLast) + " was 2 s old, and " +
                       std::to_string(left) + " is the newest that is left";
        } catch (const std::exception& damage) {
            return "round " + std::to_string(round) + ": " + damage.what();
        }
    }
    return {};
}

int killAll(unsigned first, unsigned trials)
{
    std::atomic<unsigned> next = first;
    std::mutex mutex;
    unsigned broken = 0;
    std::vector<std::thread> workers;
    for (int i = 0; i < atOnce; ++i)
        workers.emplace_back([&] {
            for (unsigned number = next++; number < first + trials; number = next++)
                if (const std::string words = trial(number); !words.empty()) {
                    const std::lock_guard lock(mutex);
                    ++broken;
                    std::printf("trial %u: %s\n", number, words.c_str());
                    std::fflush(stdout);
                }
        });
    for (std::thread& worker : workers)
        worker.join();
    std::printf("%u kills, %u trials broken\n", trials * rounds, broken);
    return broken ? 1 : 0;
}

} // namespace
} // namespace vetchling::testing

int main(int argc, char** argv)
{
    using namespace vetchling::testing;
    if (argc == 4 && std::string(argv[1]) == "--edit")
        return editUntilKilled(argv[2], unsigned(std::atol(argv[3])));
    const unsigned kills = argc > 1 ? unsigned(std::atol(argv[1])) : 500, first = argc > 2 ? unsigned(std::atol(argv[2])) : 1;
    return killAll(first, (kills + rounds - 1) / rounds);
}
