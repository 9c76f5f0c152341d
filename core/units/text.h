#pragma once
/// Sentences of the core that a person reads: a pattern in English, marked for translation, and the values that go into it.
/// The command line prints them in English and SI; the window translates the pattern and writes the values in its own units.

#include <string>
#include <variant>
#include <vector>

namespace vetchling {

namespace units {

/// Imperial: feet, inches and sixteenths as a tape shows them; DecimalFeet: feet with decimals.
enum class System { Metric, Imperial, DecimalFeet };

/// What a number stands for; decides the units accepted and the one assumed when none is written.
enum class Quantity {
    Length,
    SmallLength,
    Frequency,
    WireSize,
    Angle,
    Power,
    Inductance,
    Capacitance,
    Percent,
    Resistance,
    Decibel,
    Plain
};

} // namespace units

/// Marks a text for translation, as the tool that collects the texts of the window reads it. Returns it as it is.
constexpr const char* coreText(const char* /*context*/, const char* text) { return text; }

struct Measure {
    double value = 0.0; ///< SI
    units::Quantity quantity = units::Quantity::Plain;
};

struct Text {
    using Value = std::variant<std::string, Measure>;
    std::string pattern; ///< with %1, %2 ... where the values go
    std::vector<Value> values;

    Text() = default;
    Text(const char* pattern) : pattern(pattern) {}
    Text(std::string pattern) : pattern(std::move(pattern)) {}
    template <class... Values>
    Text(const char* pattern, Value first, Values... rest) : pattern(pattern), values{std::move(first), Value(std::move(rest))...}
    {
    }

    [[nodiscard]] bool empty() const { return pattern.empty(); }
    [[nodiscard]] std::string english() const;
    operator std::string() const { return english(); }
};

/// "tower", "tower and mast", "tower, mast and tree".
std::string joinedNames(const std::vector<std::string>& names);

} // namespace vetchling
