#pragma once
/// Lines of text in, lines of text out, in the manner of IEEE 488.2 and SCPI: "SENSe:FREQuency:STARt 7.0E6", "*IDN?".

#include <functional>
#include <string>
#include <vector>

namespace vetchling::sim {

/// A line taken apart.
struct Command {
    std::vector<std::string> path; ///< capitals: {"SENS", "FREQ", "STAR"}; {"*IDN"}
    bool query = false;
    std::vector<std::string> arguments; ///< between commas
};
Command parsed(const std::string& line);
/// Whether a word is the pattern's capitals or the whole of it: "FREQuency" by "FREQ" and "FREQUENCY".
bool means(const std::string& word, const std::string& pattern);

/// The commands an instrument knows, and its queue of faults.
class Language {
public:
    /// Knows what all instruments do: "*CLS" forgets the faults, "*ESE N" keeps a number that "*ESE?" tells again (IEEE 488.2, 10.10).
    Language();
    /// @param pattern "SENSe:FREQuency:STARt"; with '?' at its end the query
    /// @param does takes the arguments; returns the answer, without one for a command. What it throws as std::invalid_argument is a fault.
    void add(const std::string& pattern, std::function<std::string(const std::vector<std::string>&)> does);
    /// The answer to a line; empty where there is none. A fault goes into the queue that "SYSTem:ERRor?" reads.
    std::string answer(const std::string& line);

private:
    struct Entry {
        std::vector<std::string> path;
        bool query = false;
        std::function<std::string(const std::vector<std::string>&)> does;
    };
    std::vector<Entry> m_entries;
    std::vector<std::string> m_faults;
    int m_kept = 0;
};

/// A number among arguments; throws std::invalid_argument where there is none or it lies outside.
double numberAt(const std::vector<std::string>& arguments, std::size_t place, double lowest, double highest);

} // namespace vetchling::sim
