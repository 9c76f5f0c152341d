#include "core/workshop/cut_list.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

double allowanceAt(shapes::WireEnd end, const Allowances& a)
{
    switch (end) {
    case shapes::WireEnd::Centre:
    case shapes::WireEnd::Transformer: return a.centre;
    case shapes::WireEnd::Insulator: return a.fold;
    case shapes::WireEnd::Joint: return a.jointTail;
    case shapes::WireEnd::Coil: return a.coilTail;
    case shapes::WireEnd::Link: return a.linkTail;
    case shapes::WireEnd::Bare:
    case shapes::WireEnd::Tube: return 0.0; // clamped, not folded; what the mount takes is added to the foot alone
    }
    return 0.0;
}

} // namespace

std::vector<CutRow> cutList(const std::vector<shapes::WireSection>& sections, const Allowances& allowances)
{
    std::vector<CutRow> rows;
    for (const shapes::WireSection& s : sections) {
        CutRow row{s.name, s.pieces, s.length, 0.0, 0.0, 0.0};
        row.first = s.first, row.last = s.last;
        row.overlap = s.overlap, row.diameter = s.diameter;
        const bool inMount = s.first == shapes::WireEnd::Tube && s.overlap == 0.0;
        row.firstLoop = allowanceAt(s.first, allowances) + (inMount ? allowances.mount : s.overlap);
        row.lastLoop = allowanceAt(s.last, allowances);
        row.ends = row.firstLoop + row.lastLoop;
        row.fold =
            (s.first == shapes::WireEnd::Insulator ? row.firstLoop : 0.0) + (s.last == shapes::WireEnd::Insulator ? row.lastLoop : 0.0);
        const int linkEnds = (s.first == shapes::WireEnd::Link ? 1 : 0) + (s.last == shapes::WireEnd::Link ? 1 : 0);
        row.pigtail = linkEnds > 0 ? std::min(allowances.pigtail, 0.5 * s.length / linkEnds) : 0.0;
        row.margin = s.trimmed ? 0.01 * allowances.marginPercent * s.length : 0.0;
        row.cut = row.radiating + row.ends + row.margin;
        rows.push_back(row);
    }
    return rows;
}

std::optional<double> cutFor(const std::vector<CutRow>& rows, double radiating)
{
    constexpr double same = 1e-6; // m
    double sum = 0.0;
    for (const CutRow& row : rows) {
        if (std::abs(row.radiating - radiating) < same)
            return row.cut;
        sum += row.pieces * row.radiating;
    }
    return std::abs(sum - radiating) < same ? std::optional(totalWire(rows)) : std::nullopt;
}

double totalWire(const std::vector<CutRow>& rows)
{
    double sum = 0.0;
    for (const CutRow& row : rows)
        sum += row.pieces * row.cut;
    return sum;
}

bool isRod(const CutRow& row) { return row.first == shapes::WireEnd::Tube || row.last == shapes::WireEnd::Tube; }

double wireToBuy(const std::vector<CutRow>& rows)
{
    double sum = 0.0;
    for (const CutRow& row : rows)
        sum += isRod(row) ? 0.0 : row.pieces * row.cut;
    return sum;
}

std::string cutListCsv(const std::vector<CutRow>& rows)
{
    std::string out = "cut,pieces,radiating_m,ends_m,margin_m,cut_to_m\n";
    for (const CutRow& row : rows)
        out += fmt::format("{},{},{:.3f},{:.3f},{:.3f},{:.3f}\n", row.name, row.pieces, row.radiating, row.ends, row.margin, row.cut);
    return out;
}

} // namespace vetchling
