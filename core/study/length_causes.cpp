#include "core/study/length_causes.h"

#include <algorithm>

namespace vetchling::study {
namespace {

using What = LengthCause::What;
using shapes::AntennaShape;

constexpr double thinInWaves = 5e-5; // diameter that the rules' "thin wire" stands for

class Remover {
public:
    Remover(const Subject& subject, const shapes::TunedLength& length, double solved, shapes::TuneGoal goal, em::GroundTableCache& tables,
            const Watch& watch)
        : m_shape(subject.shape), m_ground(subject.ground), m_length(length), m_value(solved), m_goal(goal), m_tables(tables),
          m_watch(watch), m_family(shapes::familyOf(subject.shape))
    {
        m_shape.parameters[length.parameter] = solved;
    }

    std::vector<LengthCause> run()
    {
        const shapes::ParameterSpec* spec = m_family.spec(m_shape, m_length.parameter);
        const auto rules = m_family.rules(m_shape, m_length);
        if (!spec || spec->quantity != units::Quantity::Length || rules.empty() || !(rules.front().feetMegahertz > 0.0))
            return {};
        // what is fed where its impedance is high has a lowest SWR everywhere, but no X = 0 without the ground
        if (m_goal == shapes::TuneGoal::LowestSwr && m_family.usualGoal() == shapes::TuneGoal::Resonance)
            remove(What::Transformer, [this] { m_goal = shapes::TuneGoal::Resonance; });
        if (jacketed())
            remove(What::Jacket, [this] { forAllWires([](shapes::WireChoice& w) { w.jacket = 0.0; }); });
        remove(What::HeightAndSoil, [this] { m_ground = Ground{}; });
        if (const AntennaShape straight = m_family.straightened(m_shape); straight != m_shape)
            remove(What::Bends, [&] { m_shape = straight; });
        remove(What::Thickness, [this] {
            forAllWires([&](shapes::WireChoice& w) { w.diameter = std::max(2e-5, thinInWaves * wavelength(m_length.frequency)); });
        });
        if (m_failed)
            return {};
        m_causes.push_back({What::Rule, m_value / rules.front().value - 1.0});
        return m_causes;
    }

private:
    bool jacketed() const
    {
        return m_shape.wire.jacket > 0.0 ||
               std::any_of(m_shape.partWires.begin(), m_shape.partWires.end(), [](const auto& part) { return part.second.jacket > 0.0; });
    }

    template <class Change> void forAllWires(Change change)
    {
        change(m_shape.wire);
        for (auto& [part, wire] : m_shape.partWires)
            change(wire);
    }

    template <class Change> void remove(What what, Change change)
    {
        if (m_failed)
            return;
        change();
        TuneOptions options;
        options.goal = m_goal;
        options.startFromPresent = true;
        options.configuration = m_length.configuration;
        const auto tuned = tune(m_shape, m_ground, m_length.parameter, m_length.frequency, m_tables, options, m_watch);
        if (!tuned) {
            m_failed = true;
            return;
        }
        m_causes.push_back({what, m_value / tuned->value - 1.0});
        m_value = tuned->value;
        m_shape.parameters[m_length.parameter] = m_value;
    }

    AntennaShape m_shape;
    Ground m_ground;
    const shapes::TunedLength& m_length;
    double m_value;
    shapes::TuneGoal m_goal;
    em::GroundTableCache& m_tables;
    const Watch& m_watch;
    const shapes::Family& m_family;
    bool m_failed = false;
    std::vector<LengthCause> m_causes;
};

} // namespace

Result<std::vector<LengthCause>> lengthCauses(const Subject& subject, const shapes::TunedLength& length, double solved,
                                              shapes::TuneGoal goal, em::GroundTableCache& tables, const Watch& watch)
{
    return unlessStopped(watch, Remover(subject, length, solved, goal, tables, watch).run());
}

} // namespace vetchling::study
