#include "app/view/feed_words.h"

#include "app/document/feed_desk.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "core/advice/feed_findings.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace vetchling::app::feed {
namespace {

class Words {
    Q_DECLARE_TR_FUNCTIONS(FeedWords)
public:
    static QString joined(const QStringList& names)
    {
        return names.size() < 2 ? names.join(QString())
                                : tr("%1 and %2").arg(names.mid(0, names.size() - 1).join(QStringLiteral(", ")), names.back());
    }

    static QString part(const ChainPart& part) { return coreWords(advice::partName(part)); }

    static QString figure(const ChainPart& part, units::System system)
    {
        const auto v = [&](const char* key) { return partValue(part, key); };
        const auto length = [&](const char* key) { return lengthWords(v(key), system, v(key) < 10.0 ? 2 : 1); };
        if (part.kind == part::transformer)
            return tr("%1 : 1").arg(v("ratio"), 0, 'g', 3);
        if (part.kind == part::choke)
            return v("at_m") > 0.0 ? tr("at %1").arg(length("at_m")) : tr("at the feedpoint");
        if (part.kind == part::line)
            return length("length_m");
        if (part.kind == part::section)
            return tr("%1, %2").arg(ohmWords(v("section_ohm")), length("length_1_m"));
        if (part.kind == part::stub)
            return length("length_m");
        if (part.kind == part::tuner)
            return coreWords(kindOf(part).spec("place")->choices[std::size_t(std::clamp(std::lround(v("place")), 0L, 2L))]);
        if (part.kind == part::network)
            return tr("fixed");
        if (part.kind == part::lump && v("loss_to_dB") > v("loss_from_dB"))
            return tr("%1 to %2 dB").arg(v("loss_from_dB"), 0, 'g', 3).arg(v("loss_to_dB"), 0, 'g', 3);
        return decibelWords(v("loss_dB"));
    }

    static QString against(const Against& against, const Document& document, const SolveService& solver)
    {
        switch (against.kind) {
        case Against::Kind::Dipole: return tr("a dipole at this height");
        case Against::Kind::Own: return tr("%1 dBi of your own").arg(against.gain, 0, 'f', 1);
        case Against::Kind::Pinned: return solver.pinned() ? tr("the pinned %1").arg(solver.pinnedName()) : tr("a quarter-wave vertical");
        case Against::Kind::Antenna:
            if (const Antenna* other = findAntenna(document.design(), against.antenna))
                return QString::fromStdString(other->name);
            break;
        case Against::Kind::Vertical: break;
        }
        return tr("a quarter-wave vertical");
    }

    static QString losses(const study::FeedReport& report, const QString& against)
    {
        if (report.rows.empty())
            return tr("No band is wanted yet: wish for some on the Bands page.");
        const auto [least, most] = std::minmax_element(report.rows.begin(), report.rows.end(),
                                                       [](const auto& a, const auto& b) { return a.service.total() < b.service.total(); });
        QString words =
            least == most
                ? tr("Loses %1 on the %2 band.").arg(decibelWords(most->service.total(), 1), QString::fromStdString(most->band.name))
                : tr("Loses %1 on the %2 band and %3 on the %4 band.")
                      .arg(decibelWords(least->service.total(), 1), QString::fromStdString(least->band.name),
                           decibelWords(most->service.total(), 1), QString::fromStdString(most->band.name));
        QStringList ahead, behind;
        for (const study::FeedRow& row : report.rows)
            (row.ahead() >= 0.0 ? ahead : behind) << QString::fromStdString(row.band.name);
        words += QLatin1Char(' ');
        if (behind.isEmpty())
            words += tr("Ahead of %1 everywhere.").arg(against);
        else if (ahead.isEmpty())
            words += tr("Behind %1 everywhere.").arg(against);
        else if (ahead.size() <= behind.size())
            words += tr("Ahead of %1 only on %2.").arg(against, joined(ahead));
        else
            words += tr("Ahead of %1 except on %2.").arg(against, joined(behind));
        return words;
    }

    static QString row(const study::FeedRow& row, const study::FeedReport& report)
    {
        const double by = row.ahead();
        const QString band = QString::fromStdString(row.band.name);
        if (std::abs(by) < 0.05)
            return tr("%1: as good as what it is held against.").arg(band);
        if (by > 0.0)
            return tr("%1: %2 dB ahead.").arg(band, oneDecimal(by));
        constexpr double muchLeft = 0.3; // dB
        if (row.service.mismatch > std::max(muchLeft, row.state.totalLoss()))
            return tr("%1: %2 dB behind; at SWR %3 the radio puts in only %4 of %5.")
                .arg(band, oneDecimal(-by), swrText(row.socketSwr), wattWords(row.power), wattWords(report.power));
        std::size_t most = 0;
        for (std::size_t i = 0; i < report.parts.size(); ++i)
            if (row.state.joints[i].loss > row.state.joints[most].loss)
                most = i;
        const double share = report.parts.empty() ? 0.0 : row.state.joints[most].loss;
        constexpr double hardlyAny = 0.3; // dB
        return row.state.totalLoss() < hardlyAny
                   ? tr("%1: %2 dB behind, hardly any of it in the chain.").arg(band, oneDecimal(-by))
                   : tr("%1: %2 dB behind; the %3 takes %4.").arg(band, oneDecimal(-by), part(report.parts[most]), oneDecimal(share));
    }

    static QString advice(const study::FeedReport& report, const std::vector<study::ChoiceRow>& lines, units::System system)
    {
        constexpr double worthwhile = 0.2; // dB
        const auto now = std::find_if(lines.begin(), lines.end(), [](const study::ChoiceRow& r) { return r.now; });
        const study::ChoiceRow* best = nullptr;
        double gained = 0.0;
        for (const study::ChoiceRow& row : lines) {
            const bool unlike = now == lines.end() || !likeLines(row, *now, report.own) || row.tally.served < now->tally.served;
            if (row.now || unlike)
                continue;
            double most = 0.0;
            for (std::size_t i = 0; i < row.cells.size(); ++i)
                if (counts(*now, i))
                    most = std::max(most, now->cells[i].total() - row.cells[i].total());
            if (most > std::max(worthwhile, gained)) {
                gained = most;
                best = &row;
            }
        }
        if (!best)
            return tr("A better line would gain next to nothing here.");
        std::vector<std::pair<double, QString>> gains;
        for (std::size_t i = 0; i < best->cells.size(); ++i)
            if (const double gain = now->cells[i].total() - best->cells[i].total();
                gain >= 0.1 && counts(*now, i) && report.row(best->cells[i].band))
                gains.emplace_back(gain, QString::fromStdString(report.row(best->cells[i].band)->band.name));
        std::sort(gains.begin(), gains.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
        QStringList words;
        for (std::size_t i = 0; i < std::min<std::size_t>(2, gains.size()); ++i)
            words << (i == 0 ? tr("%1 dB on %2") : tr("%1 on %2")).arg(oneDecimal(gains[i].first), gains[i].second);
        return tr("%1 of %2 would gain %3.").arg(lengthWords(best->length, system, 1), QString::fromStdString(best->name), joined(words));
    }

    static QString notFor(const study::FeedReport& report, const Design& design)
    {
        std::vector<Id> bands;
        for (const study::FeedRow& row : report.rows)
            if (row.service.total() > design.operation.lossLimit)
                bands.push_back(row.band.band);
        return bands.empty() ? QString()
                             : tr("Not served: %1; more than %2 is lost before the wire, mismatch counted.")
                                   .arg(bandList(design, bands), decibelWords(design.operation.lossLimit, 1));
    }

    static QString guess(const study::FeedReport& report, const Design& design)
    {
        if (!isGuess(report.parts))
            return {};
        std::vector<Id> open;
        for (const study::FeedRow& row : report.rows)
            if (row.undecided())
                open.push_back(row.band.band);
        return open.empty() ? tr("Ahead or behind holds over the whole range of what is guessed.")
                            : tr("On %1 what is guessed decides: measure it before you judge.").arg(bandList(design, open));
    }

    static std::pair<QString, QString> cure(const study::ReflectionCure& c, const Document& document)
    {
        const units::System system = document.design().operation.system;
        const QString result = tr("SWR %1, %2, %3").arg(swrText(c.swr), decibelWords(c.loss, 1), wattWords(c.watts));
        switch (c.kind) {
        case study::ReflectionCure::Kind::Length: {
            const shapes::ParameterSpec* spec = document.family().spec(document.antenna().shape, c.parameter);
            const bool length = !spec || spec->quantity == units::Quantity::Length;
            const QString by = length ? smallWords(std::abs(c.change), system) : valueWords(std::abs(c.change), spec->quantity, system);
            return {(c.change < 0.0 ? tr("%1 less, %2") : tr("%1 more, %2")).arg(by, coreWords(c.name)), result};
        }
        case study::ReflectionCure::Kind::Ratio: return {tr("a transformer %1 : 1").arg(c.ratio, 0, 'g', 3), result};
        case study::ReflectionCure::Kind::Section:
            return {
                c.section.length2 > 0.005
                    ? tr("%1 of line, then %2 of %3")
                          .arg(lengthWords(c.section.length2, system), lengthWords(c.section.length1, system), ohmWords(c.section.section))
                    : tr("a section of %1, %2").arg(ohmWords(c.section.section), lengthWords(c.section.length1, system)),
                result};
        case study::ReflectionCure::Kind::Network: return {tr("an L network at the feedpoint"), result};
        case study::ReflectionCure::Kind::Tuner: return {tr("a tuner indoors"), result};
        }
        return {};
    }

    /// What it does on the wished bands together, or to the one that loses most by it.
    static QString elsewhere(const study::ReflectionCure& c, const Document& document)
    {
        if (!c.othersKnown)
            return tr("moves the other bands too: see Bands");
        if (c.victim)
            if (const WantedBand* band = findBand(document.design(), c.victim->band))
                return tr("%1: %2 instead of %3")
                    .arg(QString::fromStdString(band->band.name), wattWords(c.victim->wattsAfter), wattWords(c.victim->wattsBefore));
        return c.better ? QString() : tr("brings no more to the wire");
    }

    static QString leakage(const std::optional<study::LeakageEffect>& effect, const Design& design)
    {
        if (!effect)
            return {};
        const units::System system = design.operation.system;
        const auto henry = [&](double v) { return valueWords(v, units::Quantity::Inductance, system); };
        const WantedBand* band = findBand(design, effect->band);
        QString words = effect->leakage == 0.0 ? tr("No leakage inductance is told of its transformer.")
                        : !band                ? tr("Its leakage of %1 matters to none of the bands.").arg(henry(effect->leakage))
                                               : tr("Its leakage of %1 takes %2 from %3 to %4.")
                                      .arg(henry(effect->leakage), QString::fromStdString(band->band.name))
                                      .arg(effect->without, 0, 'f', 2)
                                      .arg(effect->with, 0, 'f', 2);
        if (effect->most > 0.0)
            words += tr(" With no more than %1 all bands stay under %2 that are so without.")
                         .arg(henry(effect->most))
                         .arg(design.operation.swrLimit);
        return words + tr(" A capacitor across the line's terminals takes some of it back on the upper bands.");
    }

    static QString bestChoke(const study::ShieldAnswer& answer, const Design& design)
    {
        const auto best = answer.atBest();
        if (!best)
            return {};
        const auto milliamperes = [](double amperes) { return QString::number(1e3 * amperes, 'f', 0); };
        const QString words = tr("One choke there: %1 mA on %2 at the most, now %3 mA on %4.")
                                  .arg(milliamperes(best->amperes), bandList(design, {best->loudest}), milliamperes(best->amperesNow),
                                       bandList(design, {best->loudestNow}));
        return words + QLatin1Char(' ') +
               (best->gains == best->loses ? tr("Gain %1.").arg(signedWords(best->gained))
                                           : tr("Gain %1 on %2, %3 on %4.")
                                                 .arg(signedWords(best->gained), bandList(design, {best->gains}), signedWords(best->lost),
                                                      bandList(design, {best->loses})));
    }

    static QString shieldEffect(const study::ShieldAnswer& answer, const Design& design)
    {
        const std::vector<Id> bands = answer.changed();
        return bands.empty()
                   ? QString()
                   : tr("What flows on the coax beyond its choke makes another antenna of it on %1 (Shield). Losses, Bands and Trim "
                        "count it without.")
                         .arg(bandList(design, bands));
    }

    static QString choice(const study::ChoiceRow& row, int choice, units::System system)
    {
        switch (FeedDesk::Choice(choice)) {
        case FeedDesk::Choice::Transformer: return row.ratio == 1.0 ? tr("1 : 1") : tr("%1 : 1").arg(row.ratio, 0, 'g', 3);
        case FeedDesk::Choice::Capacitor:
            return row.capacitor == 0.0 ? tr("none") : valueWords(row.capacitor, units::Quantity::Capacitance, system);
        case FeedDesk::Choice::Tuner:
            switch (row.tuner) {
            case study::ChoiceRow::Tuner::None: return tr("none");
            case study::ChoiceRow::Tuner::InRadio: return tr("in the radio");
            case study::ChoiceRow::Tuner::Indoors: return tr("indoors");
            case study::ChoiceRow::Tuner::AtAntenna: return tr("at the antenna");
            }
            break;
        case FeedDesk::Choice::Line:
            return row.now ? tr("as it is, %1").arg(lengthWords(row.length, system, 1)) : QString::fromStdString(row.name);
        case FeedDesk::Choice::Chain: return QString::fromStdString(row.name);
        }
        return {};
    }

    static QString basis(Basis basis)
    {
        return basis == Basis::Measured ? tr("measured") : basis == Basis::Computed ? tr("computed") : tr("assumed");
    }

    static QString over(double loss) { return tr("over %1 dB").arg(loss, 0, 'f', 0); }
    static QString watts(double w, int decimals) { return tr("%1 W").arg(w, 0, 'f', decimals); }
    static QString kilo(double value, const QString& unit, bool thousand, int decimals)
    {
        return thousand ? tr("%1 k%2").arg(value / 1e3, 0, 'f', decimals).arg(unit) : tr("%1 %2").arg(value, 0, 'f', decimals).arg(unit);
    }

private:
    static QString oneDecimal(double value) { return QString::number(value, 'f', 1); }
    /// What has the same wave impedances, part by part.
    static bool likeLines(const study::ChoiceRow& a, const study::ChoiceRow& b, std::size_t own)
    {
        for (std::size_t i = own; i < a.parts.size() && i < b.parts.size(); ++i)
            if (a.parts[i].kind == part::line &&
                std::abs(partValue(a.parts[i], "impedance_ohm") - partValue(b.parts[i], "impedance_ohm")) > 5.0)
                return false;
        return true;
    }
    /// Bands that can be used, or all where none can.
    static bool counts(const study::ChoiceRow& now, std::size_t cell)
    {
        const auto ofUse = [](const study::ChoiceCell& c) { return c.service.service != Service::No; };
        return ofUse(now.cells[cell]) || std::none_of(now.cells.begin(), now.cells.end(), ofUse);
    }
};

} // namespace

QString decibelWords(double loss, int decimals)
{
    constexpr double most = 60.0;
    return loss > most ? Words::over(most) : QStringLiteral("%1 dB").arg(std::max(0.0, loss), 0, 'f', decimals);
}

QString signedWords(double decibels)
{
    const QString figure = QString::number(std::abs(decibels), 'f', 1);
    return QStringLiteral("%1%2 dB").arg(figure == QLatin1String("0.0") ? QString()
                                         : decibels < 0.0               ? QStringLiteral("−")
                                                                        : QStringLiteral("+"),
                                         figure);
}

QString wattWords(double watts) { return Words::watts(watts, watts < 10.0 ? 1 : 0); }
QString voltWords(double volts) { return Words::kilo(volts, QStringLiteral("V"), volts >= 1000.0, volts >= 1000.0 ? 1 : 0); }
QString ohmWords(double ohms) { return Words::kilo(ohms, QStringLiteral("Ω"), ohms >= 1000.0, ohms >= 1000.0 || ohms < 10.0 ? 1 : 0); }

QString shortImpedance(Complex z)
{
    if (std::abs(z) < 1000.0)
        return impedanceText(z.real(), z.imag());
    const auto brief = [](double ohms) {
        return std::abs(ohms) < 1000.0 ? QString::number(std::abs(ohms), 'f', 0)
                                       : QStringLiteral("%1k").arg(std::abs(ohms) / 1e3, 0, 'f', 1);
    };
    const QString minus = QStringLiteral("−");
    return QStringLiteral("%1%2 %3 j%4 Ω")
        .arg(z.real() < 0.0 ? minus : QString(), brief(z.real()), z.imag() < 0.0 ? minus : QStringLiteral("+"), brief(z.imag()));
}

QString partName(const ChainPart& part) { return Words::part(part); }
QString partFigure(const ChainPart& part, units::System system) { return Words::figure(part, system); }
QString basisWords(Basis basis) { return Words::basis(basis); }

QString bandList(const Design& design, const std::vector<Id>& bands) { return QString::fromStdString(bandNames(design, bands)); }

QString againstWords(const Against& against, const Document& document, const SolveService& solver)
{
    return Words::against(against, document, solver);
}
QString lossSentence(const study::FeedReport& report, const QString& against) { return Words::losses(report, against); }
QString rowSentence(const study::FeedRow& row, const study::FeedReport& report) { return Words::row(row, report); }
QString adviceSentence(const study::FeedReport& report, const std::vector<study::ChoiceRow>& lines, units::System system)
{
    return Words::advice(report, lines, system);
}
QString unfitSentence(const study::FeedReport& report, const Design& design) { return Words::notFor(report, design); }
QString guessSentence(const study::FeedReport& report, const Design& design) { return Words::guess(report, design); }
std::pair<QString, QString> cureWords(const study::ReflectionCure& cure, const Document& document) { return Words::cure(cure, document); }
QString elsewhereWords(const study::ReflectionCure& cure, const Document& document) { return Words::elsewhere(cure, document); }
QString leakageSentence(const std::optional<study::LeakageEffect>& effect, const Design& design) { return Words::leakage(effect, design); }
QString bestChokeSentence(const study::ShieldAnswer& answer, const Design& design) { return Words::bestChoke(answer, design); }
QString shieldEffectSentence(const study::ShieldAnswer& answer, const Design& design) { return Words::shieldEffect(answer, design); }
QString choiceName(const study::ChoiceRow& row, int choice, units::System system) { return Words::choice(row, choice, system); }

} // namespace vetchling::app::feed
