#include "tests/validation/fuzz.h"

#include "core/em/far_field.h"
#include "core/files/design_file.h"
#include "core/files/measured_file.h"
#include "core/files/wire_file.h"
#include "core/trim/readings.h"
#include "core/trim/sense.h"
#include "sim/command.h"
#include "tests/validation/damage_trial.h"
#include "tests/validation/random_antennas.h"

#include <fmt/format.h>
#include <oneapi/tbb/parallel_for.h>

#include <mutex>
#include <random>

namespace vetchling::testing {
namespace {

bool finite(Complex z) { return std::isfinite(z.real()) && std::isfinite(z.imag()); }

/// Faults must say where or what; a fault without words is an offence.
std::string offence(const Faults& faults)
{
    for (const Fault& fault : faults)
        if (fault.message.english().size() < 5)
            return "a fault without words";
    return {};
}

/// A counted trial: what broke, or nothing; refused is set when the input was refused in words.
using Trial = std::function<std::string(unsigned seed, bool& refused)>;

FuzzCount run(unsigned first, unsigned count, const Trial& trial)
{
    FuzzCount total;
    std::mutex mutex;
    tbb::parallel_for(first, first + count, [&](unsigned seed) {
        bool refused = false;
        const std::string broken = trial(seed, refused);
        const std::lock_guard lock(mutex);
        ++total.tried;
        ++(refused ? total.refused : total.answered);
        if (!broken.empty() && total.broken.empty())
            total.broken = fmt::format("seed {}: {}", seed, broken);
    });
    return total;
}

std::string mutated(std::string text, unsigned seed)
{
    static const std::string pieces[] = {
        "-1", "1e400", "null", "[]", "{}", "\"", "nan", "0", "1e-320", ",", "]", "99999999999999999999", "\\u0000"};
    std::mt19937 random(seed);
    const auto below = [&](std::size_t n) { return std::size_t(random()) % std::max<std::size_t>(1, n); };
    for (std::size_t edits = 1 + below(4); edits > 0; --edits) {
        const std::size_t at = below(text.size());
        switch (below(5)) {
        case 0: text[at] = char(random()); break;
        case 1: text.erase(at, below(40)); break;
        case 2: text.insert(at, pieces[below(std::size(pieces))]); break;
        case 3: text.insert(at, text.substr(below(text.size()), below(60))); break;
        default: { // another number in place of one
            const std::size_t digit = text.find_first_of("0123456789", at);
            if (digit != std::string::npos)
                text.replace(digit, text.find_first_not_of("0123456789.e-", digit) - digit, pieces[below(std::size(pieces))]);
        }
        }
    }
    return text;
}

} // namespace

FuzzCount fuzzModels(unsigned first, unsigned count)
{
    em::GroundTableCache tables(60);
    return run(first, count, [&](unsigned seed, bool& refused) -> std::string {
        const WireModel model = wildModel(seed);
        if (const Faults faults = findFaults(model); !faults.empty()) {
            refused = true;
            return offence(faults);
        }
        const double frequency = seed % 3 == 0 ? 3.6e6 : 14.1e6;
        const auto solution = em::solve(std::make_shared<const WireModel>(model), frequency, tables);
        if (!solution) {
            refused = true;
            return offence(solution.faults());
        }
        if (!finite(solution->impedance) || !std::isfinite(solution->impedanceErrorPercent))
            return "the impedance is not finite";
        if (!std::isfinite(em::FarField(*solution).gain(0.3, 1.0)))
            return "the gain is not finite";
        return {};
    });
}

FuzzCount fuzzWireFiles(const std::string& seedText, unsigned first, unsigned count)
{
    return run(first, count, [&](unsigned seed, bool& refused) -> std::string {
        const auto read = files::parseWireFile(mutated(seedText, seed));
        refused = !read.ok();
        if (refused)
            return offence(read.faults());
        return findFaults(read->model).empty() ? "" : "a model with faults came through";
    });
}

FuzzCount fuzzDesigns(const std::string& seedText, unsigned first, unsigned count)
{
    return run(first, count, [&](unsigned seed, bool& refused) -> std::string {
        const auto read = files::parseDesign(mutated(seedText, seed));
        refused = !read.ok();
        if (refused)
            return offence(read.faults());
        if (read->damage && !offence(read->damage->faults()).empty())
            return "damage without words";
        const std::string written = files::writeDesign(*read);
        const auto again = files::parseDesign(written);
        if (!again)
            return "what was read cannot be written and read again: " + again.firstFault();
        return files::writeDesign(*again) == written ? "" : "another one is written when it is read again";
    });
}

FuzzCount fuzzDamage(const std::string& seedText, unsigned first, unsigned count)
{
    const Doc whole = wholeDesign(seedText);
    const std::vector<Place> places = placesOf(whole);
    return run(first, count, [&](unsigned seed, bool&) -> std::string {
        std::mt19937 random(seed);
        const Place& place = places[random() % places.size()];
        const char* way = damageWays[random() % damageWays.size()];
        const std::string offence = isLeftOut(place) ? std::string() : damageOffence(whole, place, way);
        return offence.empty() ? "" : place.to_string() + " " + way + ": " + offence;
    });
}

namespace {

/// A sweep that was taken must be one: finite, rising, and fit to be written into a log.
std::string offenceOf(const MeasuredSweep& sweep)
{
    double before = 0.0;
    for (const MeasuredPoint& p : sweep.points) {
        if (!(p.frequency > before) || !std::isfinite(p.frequency))
            return "frequencies that do not rise came through";
        if (std::isnan(p.swr) || (p.impedance && !(std::isfinite(p.impedance->real()) && std::isfinite(p.impedance->imag()))))
            return "a point that is no number came through";
        before = p.frequency;
    }
    Measurement m;
    takeSweep(sweep, m);
    return sweep.dip() && m.sweep.size() == sweep.points.size() ? "" : "a sweep without a dip";
}

} // namespace

FuzzCount fuzzMeasured(unsigned first, unsigned count)
{
    static const std::string seeds[] = {
        "! garden\n# MHz S RI R 50\n7.00 0.31 -0.2\n7.05 0.1 0.02\n7.10 0.2 0.21\n",
        "[Version] 2.0\n# kHz Z MA\n[Number of Ports] 1\n[Reference] 75\n[Network Data]\n7000 52 -12\n7100 51 10\n[End]\n",
        "# GHz Y DB R 50\n0.0070 -34 12\n0.0071 -33 -4\n",
        "Frequency (Hz),R (ohm),X (ohm),SWR\n7000000,42,-31,2.1\n7050000,50,-2,1.1\n7100000,55,22,1.6\n",
        "MHz;SWR\n7,00;1,9\n7,05;1,2\n7,10;1,7\n",
        "f\tRL dB\n7000\t-8\n7100\t-22\n",
    };
    return run(first, count, [&](unsigned seed, bool& refused) -> std::string {
        const std::string text = mutated(seeds[seed % std::size(seeds)], seed);
        const auto touchstone = files::parseTouchstone(text);
        files::CsvLayout layout = files::guessCsv(text);
        layout.firstRow = seed % 2 == 0 ? layout.firstRow : files::firstRowOf(text, layout);
        const auto table = files::parseCsv(text, layout);
        refused = !touchstone.ok() && !table.ok();
        for (const auto* read : {&touchstone, &table})
            if (const std::string bad = read->ok() ? offenceOf(**read) : offence(read->faults()); !bad.empty())
                return bad;
        const auto typed = parseReadings(mutated("7.00 2.4\n7.10 50/2 W; 7,20 42 30", seed));
        if (!typed && !offence(typed.faults()).empty())
            return "readings refused without words";
        if (typed)
            for (const SwrReading& r : *typed)
                if (!(r.swr >= 1.0 && r.frequency >= 1e5))
                    return "a reading that cannot be came through";
        sim::Language language;
        language.add("SENSe:LEVel", [](const std::vector<std::string>& a) { return std::to_string(sim::numberAt(a, 0, 0.0, 1.0)); });
        language.answer(mutated("SENSE:LEVEL 0.5", seed));
        return language.answer("SYST:ERR?").empty() ? "an instrument without an answer" : "";
    });
}

} // namespace vetchling::testing
