#pragma once
/// The real program in a folder of its own.

#include <algorithm>

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <csignal>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <sys/wait.h>
#include <unistd.h>

namespace fs = std::filesystem;
using Json = nlohmann::json;

struct Outcome {
    int code = -1;
    std::string out, err;
};

class Cli : public ::testing::Test {
protected:
    void SetUp() override
    {
        m_folder = fs::temp_directory_path() / ("vetchling_cli_" + std::to_string(getpid()));
        fs::create_directories(m_folder);
    }
    void TearDown() override { fs::remove_all(m_folder); }

    std::string path(const std::string& name) const { return (m_folder / name).string(); }

    std::string write(const std::string& name, const std::string& text) const
    {
        std::ofstream(path(name)) << text;
        return path(name);
    }

    static std::string read(const std::string& file)
    {
        std::ifstream in(file);
        std::stringstream content;
        content << in.rdbuf();
        return content.str();
    }

    Outcome run(const std::string& arguments) const
    {
        const std::string out = path("out.txt"), err = path("err.txt");
        const int status = std::system((std::string(VETCHLING_CLI) + " " + arguments + " >" + out + " 2>" + err).c_str());
        return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, read(out), read(err)};
    }

    static std::string caseFile(const std::string& name) { return std::string(VETCHLING_TEST_DATA "/reference/cases/") + name + ".json"; }
    static std::string demo() { return "'" VETCHLING_DATA "/demo/gannet-skerry.vetchling'"; }

    fs::path m_folder;
};
