/// From the first sweep to the finished log and the recipe built from it, through the window, on antennas that are points of wire: each
/// sweep is that of the sawn wire, opened from a file; the advice is read off the page and done.
#include "tests/app/trim_fixture.h"

#include "core/study/recipe.h"
#include "core/trim/history.h"
#include "tests/validation/held_antenna.h"

#include <QComboBox>
#include <QFile>
#include <QRegularExpression>

#include <cmath>

namespace vetchling::app {
namespace {

class Journey : public TrimTest, public ::testing::WithParamInterface<const char*> {
protected:
    /// As it is cut by the list and comes out half a percent longer than its tape.
    void begin(const char* family)
    {
        document().editAntenna(QStringLiteral("begin"), {}, [&](Antenna& a) {
            a.shape = shapes::findFamily(family)->standardShape(7.08e6);
            a.typed.clear();
            a.feed = {};
            a.trim = {};
            a.workshop = {};
            a.shape.parameters["x_m"] = 40.0, a.shape.parameters["y_m"] = 40.0; // clear of all else
        });
        const auto tuned = tuneAll(document().antenna().shape, soil(), solver().library().tables());
        ASSERT_TRUE(tuned.ok()) << tuned.firstFault();
        document().editAntenna(QStringLiteral("tune"), {}, [&](Antenna& a) {
            for (const TunedValue& v : tuned->lengths)
                a.shape.parameters[v.length.parameter] = v.value;
        });
        ASSERT_TRUE(settle() && advised());
        std::vector<shapes::BuiltAntenna> drawn;
        const shapes::AntennaShape& shape = document().antenna().shape;
        for (std::size_t i = 0; i < shapes::familyOf(shape).configurations(shape).size(); ++i)
            drawn.push_back(*shapes::buildOver(shape, soil(), i));
        m_held = std::make_unique<testing::HeldAntenna>(std::move(drawn));
        m_tasks = trimTasks(document().antenna());
        const auto cut = asCutOf(document().antenna()).longer;
        for (const TrimTask& t : m_tasks) {
            const double plan = shapes::familyOf(shape).value(shape, t.lever.parameter);
            m_held->take(*testing::gripOf(family, t.lever.parameter), -cut.at(t.lever.parameter) - building * plan);
        }
    }
    Ground soil() { return document().design().site.soil.ground(); }

    /// What the analyser's program saved.
    void sweepFile(const TrimTask& task)
    {
        const auto dip = m_held->dip(m_library, soil(), task.configuration, task.target);
        ASSERT_TRUE(dip.ok()) << dip.firstFault();
        WireModel model = m_held->model(task.configuration);
        model.ground = soil();
        const auto curve =
            m_library.study(model, m_held->drawn(task.configuration).portReference)->curve({0.8 * task.target, 1.2 * task.target});
        ASSERT_TRUE(curve.ok()) << curve.firstFault();
        QFile out(file("sweep.s1p"));
        ASSERT_TRUE(out.open(QIODevice::WriteOnly));
        out.write("# Hz Z RI R 50\n");
        for (int i = -60; i <= 60; ++i) {
            const double f = dip->frequency * (1.0 + 0.0007 * i);
            const Complex z = m_held->drawn(task.configuration).atLine((*curve)->at(f), f) / 50.0;
            out.write(QStringLiteral("%1 %2 %3\n").arg(f, 0, 'f', 0).arg(z.real(), 0, 'g', 9).arg(z.imag(), 0, 'g', 9).toLatin1());
        }
    }

    /// m of each piece that the page says is to be cut; below 0: to be let out; nothing where it says nothing of the kind.
    std::optional<double> told()
    {
        static const QRegularExpression cut(QStringLiteral("^Cut ([\\d.,]+) (mm|cm|m) from")),
            longer(QStringLiteral("lengthen .* by ([\\d.,]+) (mm|cm|m)"));
        for (const auto& [words, sign] : {std::pair(&cut, 1.0), std::pair(&longer, -1.0)})
            if (const auto found = words->match(advice()); found.hasMatch()) {
                const QString unit = found.captured(2);
                return sign * found.captured(1).replace(QLatin1Char(','), QLatin1Char('.')).toDouble() *
                       (unit == QStringLiteral("mm")   ? 1e-3
                        : unit == QStringLiteral("cm") ? 1e-2
                                                       : 1.0);
            }
        return std::nullopt;
    }

    static constexpr double building = 0.005; // of each length
    study::Library m_library;
    std::unique_ptr<testing::HeldAntenna> m_held;
    std::vector<TrimTask> m_tasks;
};

TEST_P(Journey, EndsWithARecipeThatIsBuiltAgain)
{
    ASSERT_NO_FATAL_FAILURE(begin(GetParam()));
    auto* pieces = find<QComboBox>("trimTask");
    double cut = 0.0;
    int cuts = 0;
    std::size_t finished = 0;
    for (int visit = 0; visit < 8 * int(m_tasks.size()) && finished < m_tasks.size(); ++visit) {
        ASSERT_TRUE(settle() && advised());
        const std::size_t place = m_tasks.size() > 1 ? std::size_t(pieces->currentIndex()) : 0;
        if (trim()->summary() == QStringLiteral("done")) {
            finished = place + 1;
            if (finished < m_tasks.size() && pieces->currentIndex() == int(place))
                choose("trimTask", int(finished));
            continue;
        }
        if (const auto amount = told()) {
            cut = *amount;
            m_held->take(*testing::gripOf(GetParam(), m_tasks[place].lever.parameter), cut);
            type("trimCut", QStringLiteral("%1 m").arg(cut, 0, 'f', 4));
            ++cuts;
        } else {
            ASSERT_TRUE(trim()->summary().contains(QStringLiteral("measure")))
                << trim()->summary().toStdString() << ": " << advice().toStdString();
        }
        ASSERT_NO_FATAL_FAILURE(sweepFile(m_tasks[place]));
        ASSERT_TRUE(QMetaObject::invokeMethod(trim(), "takeSweepFile", Q_ARG(QString, file("sweep.s1p"))));
        ASSERT_TRUE(find<ValueEdit>("trimDip")->hasValue()) << find<QLabel>("sweepNote")->text().toStdString();
        const std::size_t before = log().size();
        click("addMeasurement");
        ASSERT_EQ(log().size(), before + 1) << find<QLabel>("trimDipQuestion")->text().toStdString();
        EXPECT_EQ(log().back().parameter, m_tasks[place].lever.parameter);
    }
    ASSERT_EQ(finished, m_tasks.size()) << advice().toStdString();
    EXPECT_LE(cuts, 3 * int(m_tasks.size()));
    for (const TrimTask& t : m_tasks)
        EXPECT_NEAR(m_held->dip(m_library, soil(), t.configuration, t.target)->frequency, t.target, 6e-3 * t.target) << t.lever.parameter;
    // built again by its recipe, by the same hands: their half percent comes on top of what the log knows
    const Antenna& antenna = document().antenna();
    const study::Recipe recipe = study::recipeOf(document().design(), antenna, asLogged(antenna), {}, "2026-11-30");
    std::vector<shapes::BuiltAntenna> drawn;
    for (std::size_t i = 0; i < shapes::familyOf(recipe.shape).configurations(recipe.shape).size(); ++i)
        drawn.push_back(*shapes::buildOver(recipe.shape, soil(), i));
    testing::HeldAntenna again(std::move(drawn));
    for (const TrimTask& t : m_tasks)
        again.take(*testing::gripOf(GetParam(), t.lever.parameter),
                   -building * shapes::familyOf(antenna.shape).value(antenna.shape, t.lever.parameter));
    for (const TrimTask& t : m_tasks)
        EXPECT_NEAR(again.dip(m_library, soil(), t.configuration, t.target)->frequency, t.target, 8e-3 * t.target) << t.lever.parameter;
}

INSTANTIATE_TEST_SUITE_P(Four, Journey, ::testing::Values("linked-dipole", "loaded-dipole", "end-fed", "fan-dipole"), [](const auto& info) {
    std::string name = info.param;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

} // namespace
} // namespace vetchling::app
