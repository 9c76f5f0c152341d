/// What the documentation names is there, and what it shows to be typed runs as it stands.
#include "tests/cli/cli_fixture.h"

#include <regex>
#include <set>

namespace {

const fs::path source = VETCHLING_SOURCE;

std::string textOf(const fs::path& file)
{
    std::ifstream in(file);
    std::stringstream content;
    content << in.rdbuf();
    return content.str();
}

std::vector<fs::path> pages()
{
    std::vector<fs::path> all{source / "README.md", source / "CONTRIBUTING.md"};
    for (const auto& entry : fs::directory_iterator(source / "docs"))
        if (entry.path().extension() == ".md")
            all.push_back(entry.path());
    return all;
}

std::vector<std::string> found(const std::string& text, const char* pattern)
{
    const std::regex looked(pattern);
    std::vector<std::string> all;
    for (std::sregex_iterator match(text.begin(), text.end(), looked), end; match != end; ++match)
        all.push_back((*match)[1]);
    return all;
}

/// Lines of the blocks that are marked as commands.
std::vector<std::string> commandsOf(const fs::path& page)
{
    std::istringstream in(textOf(page));
    std::vector<std::string> all;
    bool within = false;
    for (std::string line; std::getline(in, line);) {
        if (line.rfind("```", 0) == 0)
            within = line == "```sh";
        else if (within && !line.empty())
            all.push_back(line);
    }
    return all;
}

TEST(Documentation, LinksLeadToFiles)
{
    std::size_t links = 0;
    for (const fs::path& page : pages())
        for (const std::string& link : found(textOf(page), R"(\]\(([^)#\s]+)[^)]*\))"))
            if (link.find("://") == std::string::npos) {
                ++links;
                EXPECT_TRUE(fs::exists(page.parent_path() / link)) << page << ": " << link;
            }
    EXPECT_GT(links, 30u);
}

TEST(Documentation, FilesThatAreNamedAreThere)
{
    std::size_t names = 0;
    for (const fs::path& page : pages())
        for (const std::string& name : found(textOf(page), R"(`((?:app|bench|cli|core|data|docs|sim|tests)/[\w./-]*)`)")) {
            ++names;
            EXPECT_TRUE(fs::exists(source / name)) << page << ": " << name;
        }
    EXPECT_GT(names, 40u);
}

TEST(Documentation, EveryRowOfTheCommandsHasAnExample)
{
    const std::string page = textOf(source / "docs/cli.md");
    std::set<std::string> shown;
    for (const std::string& line : commandsOf(source / "docs/cli.md"))
        for (const std::string& command : found(line, R"(vetchling-cli ([a-z]+))"))
            shown.insert(command);
    std::size_t rows = 0;
    for (const std::string& command : found(page, R"(\n\| `([a-z]+)[ `])")) {
        ++rows;
        EXPECT_TRUE(shown.count(command)) << command;
    }
    EXPECT_GE(rows, 30u);
}

/// A folder as the source's, with the program where the documentation has it.
class Documented : public Cli {
protected:
    void SetUp() override
    {
        Cli::SetUp();
        fs::create_directory_symlink(source / "data", m_folder / "data");
        fs::create_directories(m_folder / "build/release");
        fs::create_directory_symlink(fs::path(VETCHLING_CLI).parent_path(), m_folder / "build/release/bin");
    }
    void runAll(const char* page, std::size_t fewest)
    {
        std::size_t count = 0;
        for (const std::string& line : commandsOf(source / page)) {
            if (line.rfind("./dev", 0) == 0) // builds all of this
                continue;
            ++count;
            write("line.sh", "export PATH=\"$PWD/build/release/bin:$PATH\"\n" + line + "\n");
            const int status = std::system(("cd " + m_folder.string() + " && QT_QPA_PLATFORM=offscreen bash -e line.sh >out.txt 2>err.txt").c_str());
            EXPECT_EQ(status, 0) << line << "\n" << read(path("err.txt"));
        }
        EXPECT_GE(count, fewest);
    }
};

TEST_F(Documented, ExamplesOfTheCommandLineRun) { runAll("docs/cli.md", 30); }

TEST_F(Documented, ExamplesOfTheFirstPageRun) { runAll("README.md", 5); }

} // namespace
