#pragma once
/// A page of docs/ that is computed.

#include "tests/validation/svg_plot.h"

#include <fmt/format.h>

#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>

namespace vetchling::testing {

class Page {
public:
    explicit Page(std::filesystem::path folder) : m_folder(std::move(folder))
    {
        std::filesystem::create_directories(m_folder / "validation");
    }

    void say(const std::string& words) { m_text += words + "\n"; }
    void heading(const std::string& words)
    {
        fmt::print(stderr, "{}\n", words);
        say("\n## " + words + "\n");
    }
    void plot(const std::string& name, const Plot& plot)
    {
        std::ofstream(m_folder / "validation" / (name + ".svg")) << svg(plot);
        say(fmt::format("\n![{}](validation/{}.svg)\n", plot.title, name));
    }
    /// What `./dev check` wrote at its end stays.
    void save() const
    {
        std::stringstream before;
        before << std::ifstream(m_folder / "validation.md").rdbuf();
        const std::size_t checks = before.str().find("\n## Checks");
        std::ofstream(m_folder / "validation.md") << m_text << (checks == std::string::npos ? "" : before.str().substr(checks));
    }

private:
    std::filesystem::path m_folder;
    std::string m_text;
};

} // namespace vetchling::testing
