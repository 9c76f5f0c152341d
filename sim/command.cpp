#include "sim/command.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <stdexcept>

namespace vetchling::sim {
namespace {

constexpr std::size_t mostFaults = 20;

std::string capitals(std::string text)
{
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return char(std::toupper(c)); });
    return text;
}

std::vector<std::string> split(const std::string& text, char at)
{
    std::vector<std::string> parts(1);
    for (char c : text)
        c == at ? void(parts.emplace_back()) : parts.back().push_back(c);
    return parts;
}

std::string trimmed(const std::string& text)
{
    const std::size_t from = text.find_first_not_of(" \t\r\n"), to = text.find_last_not_of(" \t\r\n");
    return from == std::string::npos ? std::string() : text.substr(from, to - from + 1);
}

} // namespace

Command parsed(const std::string& line)
{
    Command command;
    const std::string text = trimmed(line);
    const std::size_t space = text.find_first_of(" \t");
    std::string head = text.substr(0, space);
    if (!head.empty() && head.back() == '?') {
        command.query = true;
        head.pop_back();
    }
    if (!head.empty() && head.front() == ':')
        head.erase(0, 1);
    command.path = split(capitals(head), ':');
    if (space != std::string::npos)
        for (const std::string& part : split(text.substr(space + 1), ','))
            command.arguments.push_back(trimmed(part));
    return command;
}

bool means(const std::string& word, const std::string& pattern)
{
    std::string brief;
    for (char c : pattern)
        if (!std::islower(static_cast<unsigned char>(c)))
            brief.push_back(c);
    return word == brief || word == capitals(pattern);
}

Language::Language()
{
    add("*CLS", [this](const std::vector<std::string>&) {
        m_faults.clear();
        return std::string();
    });
    add("*ESE", [this](const std::vector<std::string>& a) {
        m_kept = int(numberAt(a, 0, 0, 255));
        return std::string();
    });
    add("*ESE?", [this](const std::vector<std::string>&) { return std::to_string(m_kept); });
}

void Language::add(const std::string& pattern, std::function<std::string(const std::vector<std::string>&)> does)
{
    const bool query = pattern.back() == '?';
    m_entries.push_back({split(query ? pattern.substr(0, pattern.size() - 1) : pattern, ':'), query, std::move(does)});
}

std::string Language::answer(const std::string& line)
{
    const Command command = parsed(line);
    if (command.path.size() == 1 && command.path[0].empty())
        return {};
    const auto fault = [&](int number, const std::string& words) {
        if (m_faults.size() < mostFaults)
            m_faults.push_back(fmt::format("{},\"{}\"", number, words));
        return std::string();
    };
    if (command.query && command.path.size() == 2 && means(command.path[0], "SYSTem") && means(command.path[1], "ERRor")) {
        if (m_faults.empty())
            return "0,\"No error\"";
        const std::string first = m_faults.front();
        m_faults.erase(m_faults.begin());
        return first;
    }
    for (const Entry& entry : m_entries) {
        if (entry.query != command.query || entry.path.size() != command.path.size())
            continue;
        if (!std::equal(command.path.begin(), command.path.end(), entry.path.begin(), means))
            continue;
        try {
            return entry.does(command.arguments);
        } catch (const std::invalid_argument& wrong) {
            return fault(-222, wrong.what());
        }
    }
    return fault(-113, "Undefined header; " + trimmed(line).substr(0, 60));
}

double numberAt(const std::vector<std::string>& arguments, std::size_t place, double lowest, double highest)
{
    if (place >= arguments.size())
        throw std::invalid_argument("Missing parameter");
    const std::string& text = arguments[place];
    double value = 0.0;
    const auto [end, fault] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (fault != std::errc() || end != text.data() + text.size() || !(value >= lowest && value <= highest))
        throw std::invalid_argument(fmt::format("Data out of range; {} to {} expected", lowest, highest));
    return value;
}

} // namespace vetchling::sim
