#include "core/files/writer.h"

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <fstream>
#include <poll.h>
#include <sys/stat.h>
#include <unistd.h>

namespace vetchling::files {
namespace {

namespace fs = std::filesystem;

Fault cannotWrite(const std::string& path, int error)
{
    return {path,
            {coreText("core", "cannot be written (%1); check the folder, its permissions and the free space"),
             std::string(std::strerror(error))}};
}

/// Where a path leads in the end, through links whose target may not be there yet.
fs::path target(const std::string& path)
{
    constexpr int mostLinks = 40;
    fs::path out = path;
    std::error_code error;
    for (int i = 0; i < mostLinks && fs::is_symlink(fs::symlink_status(out, error)); ++i) {
        const fs::path next = fs::read_symlink(out, error);
        out = next.is_absolute() ? next : out.parent_path() / next;
    }
    return out;
}

/// The mask for new files. It can only be read by setting it, which another thread must not see: once, before there are any.
mode_t readMask()
{
    const mode_t mask = ::umask(0);
    ::umask(mask);
    return mask;
}

const mode_t maskAtStart = readMask();

/// As the kernel tells it, without a change to it.
mode_t maskOfTheProcess()
{
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);)
        if (line.rfind("Umask:", 0) == 0)
            return mode_t(std::strtoul(line.c_str() + 6, nullptr, 8));
    return maskAtStart;
}

/// An open file that is closed and, unless renamed away, removed at the end.
class TemporaryFile {
public:
    explicit TemporaryFile(const fs::path& beside) : m_name(beside.string() + ".XXXXXX"), m_file(::mkostemp(m_name.data(), O_CLOEXEC)) {}
    ~TemporaryFile()
    {
        if (m_file >= 0)
            ::close(m_file);
        if (m_there)
            ::unlink(m_name.c_str());
    }
    TemporaryFile(const TemporaryFile&) = delete;
    TemporaryFile& operator=(const TemporaryFile&) = delete;

    bool open()
    {
        m_there = m_file >= 0;
        return m_there;
    }

    /// With the permissions of the file it replaces, or those of a new file.
    bool takePermissions(const fs::path& from) const
    {
        struct stat old {};
        if (::stat(from.c_str(), &old) == 0)
            return ::fchmod(m_file, old.st_mode & 07777) == 0;
        return ::fchmod(m_file, 0666 & ~maskOfTheProcess()) == 0;
    }

    bool write(const std::string& content, Flush flush) const
    {
        for (std::size_t done = 0; done < content.size();) {
            const ssize_t count = ::write(m_file, content.data() + done, content.size() - done);
            if (count < 0 && errno != EINTR)
                return false;
            done += std::size_t(std::max<ssize_t>(count, 0));
        }
        return flush == Flush::WhenItSuits || ::fsync(m_file) == 0;
    }

    bool renameTo(const fs::path& to)
    {
        if (::rename(m_name.c_str(), to.c_str()) != 0)
            return false;
        m_there = false;
        return true;
    }

private:
    std::string m_name;
    int m_file;
    bool m_there = false;
};

/// So that the new name survives a power cut too; not all file systems can.
void syncFolder(const fs::path& folder)
{
    const int file = ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (file < 0)
        return;
    ::fsync(file);
    ::close(file);
}

/// A device, a pipe: nothing that could be renamed over, which would put a file in its place.
Faults writeThrough(const std::string& path, const std::string& content)
{
    const int file = ::open(path.c_str(), O_WRONLY | O_NONBLOCK | O_CLOEXEC);
    if (file < 0)
        return {cannotWrite(path, errno)};
    int error = 0;
    for (std::size_t done = 0; done < content.size() && error == 0;) {
        const ssize_t count = ::write(file, content.data() + done, content.size() - done);
        if (count < 0 && errno == EAGAIN) {
            pollfd ready{file, POLLOUT, 0};
            ::poll(&ready, 1, -1);
        } else if (count < 0 && errno != EINTR) {
            error = errno;
        }
        done += std::size_t(std::max<ssize_t>(count, 0));
    }
    ::close(file);
    return error == 0 ? Faults() : Faults{cannotWrite(path, error)};
}

} // namespace

Faults writeWhole(const std::string& path, const std::string& content, Flush flush)
{
    const fs::path to = target(path);
    struct stat there {};
    if (::stat(to.c_str(), &there) == 0 && !S_ISREG(there.st_mode))
        return S_ISDIR(there.st_mode) ? Faults{cannotWrite(path, EISDIR)} : writeThrough(path, content);
    TemporaryFile file(to);
    if (!file.open() || !file.takePermissions(to) || !file.write(content, flush) || !file.renameTo(to))
        return {cannotWrite(path, errno)};
    if (flush == Flush::ToDisk)
        syncFolder(to.parent_path());
    return {};
}

FileState stateOf(const std::string& path)
{
    struct stat is {};
    if (::stat(path.c_str(), &is) != 0)
        return {};
    const auto nanoseconds = [](const timespec& t) { return std::int64_t(t.tv_sec) * 1'000'000'000 + t.tv_nsec; };
    return {true, is.st_dev, is.st_ino, is.st_size, nanoseconds(is.st_mtim), nanoseconds(is.st_ctim)};
}

std::string freeFileName(const std::string& path)
{
    const fs::path whole = path;
    for (int number = 1;; ++number) {
        fs::path name = whole;
        name.replace_filename(whole.stem().string() + "-" + std::to_string(number) + whole.extension().string());
        std::error_code error;
        if (!fs::exists(fs::symlink_status(name, error)))
            return name.string();
    }
}

} // namespace vetchling::files
