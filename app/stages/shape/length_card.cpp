#include "app/stages/shape/length_card.h"

#include "app/view/old_figures.h"
#include "app/view/words.h"
#include "core/workshop/cut_list.h"

#include <QStyle>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

const std::vector<study::Length> noLengths;

} // namespace

LengthCard::LengthCard(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context), m_ledger(ledger)
{
    m_lengthHeading = new QLabel(&m_ledger);
    m_lengthHeading->setProperty("role", "heading");
    m_lengthHeading->setWordWrap(true);
    m_ledger.add(m_lengthHeading);
    m_bars = new CompareBars(m_context.theme, &m_ledger);
    m_bars->setObjectName(QStringLiteral("lengthCard"));
    paleWhileOld(m_context.solver, m_bars);
    m_ledger.add(m_bars);
    m_lengthNote = m_ledger.note();
    m_lengthNote->setObjectName(QStringLiteral("lengthNote"));
    m_goal = m_ledger.choice(tr("Tune for"), {tr("resonance, X = 0"), tr("lowest SWR")}, QStringLiteral("tuneGoal"));
    connect(m_goal, &QComboBox::activated, this, [this](int index) {
        document().editAntenna(tr("change what to tune for"), {}, [&](Antenna& a) { a.tuneForLowestSwr = index == 1; });
    });
    m_tune = m_ledger.button({}, QStringLiteral("tuneButton"), true);
    connect(m_tune, &QPushButton::clicked, this, &LengthCard::takeTuned);
    m_undone = m_ledger.note();
    m_undone->setObjectName(QStringLiteral("tuneUndoes"));
    addKept();
    connect(&solver(), &SolveService::detailReady, this, &LengthCard::learn);
}

/// For which wire the coil was worked out.
void LengthCard::learn()
{
    const CurvePointer curve = solver().curve();
    const study::Length* solved = solvedLength();
    const shapes::ParameterSpec* spec = curve && solved ? family().spec(curve->question.subject.shape, solved->what.parameter) : nullptr;
    if (!spec || !solved->solved || spec->quantity != units::Quantity::Inductance) {
        m_coils.forget();
        return;
    }
    const shapes::AntennaShape& shape = curve->question.subject.shape;
    m_coils.learn(document().antenna().id, shape, family().value(shape, spec->key), *solved->solved);
    refresh();
}

/// The state before the last pair or link was added, and the way back to it.
void LengthCard::addKept()
{
    m_keptNote = m_ledger.note();
    m_keptNote->setObjectName(QStringLiteral("keptNote"));
    m_goBack = m_ledger.button(tr("Go back to it"), QStringLiteral("goBack"));
    connect(m_goBack, &QPushButton::clicked, this, [this] {
        document().editAntenna(tr("go back to what was kept"), {}, [](Antenna& a) {
            if (!a.copies.empty() && takeCopy(a, a.copies.back().id))
                a.copies.pop_back();
        });
    });
}

void LengthCard::refreshKept()
{
    const bool kept = solver().question().before.has_value();
    m_keptNote->setVisible(kept);
    m_goBack->setVisible(kept);
    if (!kept)
        return;
    QStringList moves;
    const DetailPointer detail = solver().detail();
    for (const study::DipMove& m : detail ? detail->moves : std::vector<study::DipMove>()) {
        const double kilohertz = (m.to - m.from) / 1e3;
        moves << (std::abs(kilohertz) < 0.5
                      ? tr("%1 not at all").arg(frequencyWords(m.from))
                      : tr("%1 by %2%3 kHz")
                            .arg(frequencyWords(m.from), kilohertz < 0.0 ? QString() : QStringLiteral("+"), numberWords(kilohertz, 0)));
    }
    const QString name = QString::fromStdString(document().antenna().copies.back().name);
    m_keptNote->setText(moves.isEmpty()
                            ? tr("Kept as it was before (%1).").arg(name)
                            : tr("Kept as it was before (%1). Since then its dips moved: %2.").arg(name, moves.join(QStringLiteral(", "))));
}

const AntennaModel::Ruled* LengthCard::ruledLength(const ViewContext& context)
{
    const AntennaModel* model = context.models.current();
    const std::size_t place = study::lengthAskedFor(context.solver.question());
    return model && place < model->lengths.size() ? &model->lengths[place] : nullptr;
}

/// What was solved for it; null before.
const study::Length* LengthCard::solvedLength() const
{
    const DetailPointer detail = solver().detail();
    const AntennaModel::Ruled* shown = ruledLength(m_context);
    for (const study::Length& l : detail&& shown ? detail->lengths : noLengths)
        if (l.what.parameter == shown->what.parameter)
            return &l;
    return nullptr;
}

void LengthCard::refresh()
{
    refreshKept();
    const Antenna& a = document().antenna();
    const AntennaModel* model = m_context.models.current();
    const AntennaModel::Ruled* ruled = ruledLength(m_context);
    if (!ruled || ruled->rules.empty())
        return;
    const shapes::TunedLength& tuned = ruled->what;
    const shapes::ParameterSpec* spec = family().spec(a.shape, tuned.parameter);
    const bool isLength = spec->quantity == units::Quantity::Length;
    const auto figure = [&](double v) { return valueWords(v, spec->quantity, system()); };
    const std::vector<shapes::RuleOfThumb>& rules = ruled->rules;
    const Colours& c = m_context.theme.colours();
    const double now = family().value(a.shape, spec->key);
    m_lengthHeading->setText(
        (isLength ? tr("Length %1 for %2") : tr("Inductance %1 for %2")).arg(coreWords(tuned.name), frequencyWords(tuned.frequency)));
    std::vector<CompareBars::Row> rows{{tr("Rule of thumb"), figure(rules.front().value), rules.front().value, c.leafMid}};
    const study::Length* solved = solvedLength();
    if (solved && solved->solved)
        rows.push_back({tr("Solved on this site"), figure(*solved->solved), *solved->solved, c.leaf});
    rows.push_back({tr("As drawn"), figure(now), now, c.sky});
    if (const std::optional<double> cut = isLength ? cutFor(model->cut, now) : std::nullopt)
        rows.push_back({tr("Cut, with folds and margin"), figure(*cut), *cut, c.petal});
    m_bars->setRows(std::move(rows));
    m_goal->setCurrentIndex(a.tuneForLowestSwr ? 1 : 0);
    m_lengthNote->setText(lengthNote(rules.front().value));
    const bool done = solved && solved->solved && !tunable();
    m_tune->setText((done ? tr("Tuned to %1") : tr("Tune to %1")).arg(tuneWords()));
    m_tune->setEnabled(solved && solved->solved); // pressed once it stays, and keeps the focus
    const QString undone = undoneWords();
    m_undone->setVisible(!undone.isEmpty());
    m_undone->setText(undone);
    if (m_tune->property("strong").toBool() == done) {
        m_tune->setProperty("strong", !done);
        m_tune->style()->unpolish(m_tune);
        m_tune->style()->polish(m_tune);
    }
}

QString LengthCard::rulesText() const
{
    const AntennaModel::Ruled* ruled = ruledLength(m_context);
    if (!ruled)
        return {};
    const shapes::ParameterSpec* spec = family().spec(document().antenna().shape, ruled->what.parameter);
    const auto figure = [&](double v) { return valueWords(v, spec->quantity, system()); };
    const std::vector<shapes::RuleOfThumb>& rules = ruled->rules;
    QStringList others;
    for (const shapes::RuleOfThumb& rule : rules)
        others << (rule.feetMegahertz > 0.0 ? tr("%1 ft·MHz (%2 m·MHz): %3, %4")
                                                  .arg(rule.feetMegahertz)
                                                  .arg(rule.metreMegahertz, 0, 'f', 1)
                                                  .arg(figure(rule.value), coreWords(rule.assumption))
                                            : tr("%1: %2, %3").arg(coreWords(rule.name), figure(rule.value), coreWords(rule.assumption)));
    return tr("Constants handed down: ") + others.join(QStringLiteral("; ")) + QStringLiteral(".");
}

/// Whether a solved length differs from what is drawn.
bool LengthCard::tunable() const
{
    const DetailPointer detail = solver().detail();
    const shapes::AntennaShape& shape = document().antenna().shape;
    return detail && std::any_of(detail->lengths.begin(), detail->lengths.end(), [&](const study::Length& l) {
               return l.solved && std::abs(*l.solved / family().value(shape, l.what.parameter) - 1.0) > 2e-4;
           });
}

/// Every frequency that a length is tuned to.
QString LengthCard::tuneWords() const
{
    QStringList all;
    for (const shapes::TunedLength& t : family().tuned(document().antenna().shape))
        if (!all.contains(frequencyWords(t.frequency)))
            all << frequencyWords(t.frequency);
    return all.size() > 2 ? tr("%n frequencies", nullptr, int(all.size())) : all.join(tr(" and "));
}

QString LengthCard::causeWords(study::LengthCause::What what)
{
    using What = study::LengthCause::What;
    switch (what) {
    case What::Transformer: return tr("lowest SWR instead of X = 0");
    case What::Jacket: return tr("jacket");
    case What::HeightAndSoil: return tr("height and soil");
    case What::Bends: return tr("slope and bends");
    case What::Thickness: return tr("thickness");
    case What::Rule: return tr("what the rule rounds off");
    }
    return {};
}

/// "jacket −1.9 %, height and soil +0.6 %".
QString LengthCard::causesText(const std::vector<study::LengthCause>& causes) const
{
    constexpr double worthSaying = 0.05; // percent
    QStringList parts;
    for (const study::LengthCause& cause : causes) {
        const double percent = 100.0 * cause.share;
        if (std::abs(percent) >= worthSaying)
            parts << tr("%1 %2%3 %")
                         .arg(causeWords(cause.what), percent < 0.0 ? QStringLiteral("−") : QStringLiteral("+"))
                         .arg(std::abs(percent), 0, 'f', 1);
    }
    return parts.join(QStringLiteral(", "));
}

QString LengthCard::lengthNote(double rule) const
{
    const study::Length* length = solvedLength();
    if (!length)
        return solver().faults().empty() ? tr("Solving on your soil …") : QString();
    if (!length->solved)
        return coreWords(length->fault, system());
    if (const auto& misfit = m_coils.misfit())
        return tr("This coil of %1 was worked out for a thickness of %2; with %3 it takes %4.")
            .arg(valueWords(misfit->drawn, units::Quantity::Inductance, system()),
                 valueWords(misfit->before, units::Quantity::WireSize, system()),
                 valueWords(misfit->after, units::Quantity::WireSize, system()),
                 valueWords(misfit->suffices, units::Quantity::Inductance, system()));
    const double percent = 100.0 * (*length->solved / rule - 1.0);
    const DetailPointer detail = solver().detail();
    if (detail && !detail->causes.empty() && detail->lengths[detail->explained].what.parameter == length->what.parameter)
        return (percent < 0.0 ? tr("%1 % shorter than the rule: %2.") : tr("%1 % longer than the rule: %2."))
            .arg(std::abs(percent), 0, 'f', 1)
            .arg(causesText(detail->causes));
    return (percent < 0.0 ? tr("%1 % less than the rule, which knows nothing of height, soil, jacket and bends.")
                          : tr("%1 % more than the rule, which knows nothing of height, soil, jacket and bends."))
        .arg(std::abs(percent), 0, 'f', 1);
}

shapes::Parameters LengthCard::tunedValues() const
{
    const DetailPointer detail = solver().detail();
    shapes::Parameters values;
    for (const study::Length& l : detail ? detail->lengths : std::vector<study::Length>())
        if (l.solved)
            values[l.what.parameter] = *l.solved;
    return values;
}

/// What tuning would take back of lengths that suit several bands; empty where it takes nothing back.
QString LengthCard::undoneWords() const
{
    const Compromise* compromise = compromiseOf(document().antenna());
    if (!compromise || !tunable())
        return {};
    QStringList changes;
    for (const auto& [key, value] : tunedValues())
        if (const shapes::ParameterSpec* spec = family().spec(document().antenna().shape, key))
            if (const double now = family().value(document().antenna().shape, key); now != value)
                changes << tr("%1 from %2 to %3")
                               .arg(coreWords(spec->label), valueWords(now, spec->quantity, system()),
                                    valueWords(value, spec->quantity, system()));
    if (changes.isEmpty())
        return {};
    const QString what = [&] {
        switch (compromise->from) {
        case Compromise::From::Map: return tr("The lengths were taken from the map for all wanted bands.");
        case Compromise::From::Shift: return tr("The lengths belong to the shifted harmonics.");
        case Compromise::From::Finder: return tr("The length was found for all wanted bands behind a tuner.");
        case Compromise::From::Joint: return tr("The lengths were tuned for all wanted bands together.");
        }
        return QString();
    }();
    return tr("%1 Tuning would undo that: %2, right for %3 alone.").arg(what, changes.join(QStringLiteral(", ")), tuneWords());
}

void LengthCard::takeTuned()
{
    const shapes::Parameters values = tunedValues();
    if (!values.empty())
        document().setParameters(tr("tune"), values);
}

} // namespace vetchling::app
