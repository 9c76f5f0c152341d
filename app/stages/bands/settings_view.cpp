#include "app/stages/bands/settings_view.h"

#include "app/document/aside.h"
#include "app/view/ask_for_file.h"
#include "app/view/band_words.h"
#include "app/view/paper.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

/// The size of a playing card laid across.
Faults writeCard(const QString& path, const QString& name, const SettingTable& table)
{
    constexpr double wide = 105.0, high = 74.0, margin = 5.0, units = 520.0; // mm, and units across
    const PaperForm form{name, QPageSize(QSizeF(wide, high), QPageSize::Millimeter), {margin, margin, margin, margin}};
    return writePdf(path, form, [&](QPdfWriter& page) -> Faults {
        QPainter painter(&page);
        const double scale = painter.viewport().width() / units;
        painter.scale(scale, scale);
        Theme paper;
        paper.setMode(Theme::Mode::Paper);
        Sketch sketch(painter, paper);
        sketch.text({4, 2}, name, Qt::AlignLeft | Qt::AlignTop, {paper.colours().ink, 16, true});
        table.paint(sketch, QRectF(0, 30, units, 10.0));
        return {};
    });
}

} // namespace

SettingsView::SettingsView(ViewContext& context, BandsDesk& desk, QObject* parent)
    : BandsView(context, desk, parent), m_chart(new SettingsChart(context))
{
    connect(m_chart, &SettingsChart::taken, this, &SettingsView::take);
    connect(&desk, &BandsDesk::settingsReady, this, &BandsView::changed);
}

bool SettingsView::offered() const { return document().hasAntenna() && study::settingLevers(document().antenna().shape).has_value(); }

const study::SettingRow* SettingsView::rowOf(const Id& band) const
{
    const auto chart = m_desk.settings();
    if (!chart)
        return nullptr;
    const auto found = std::find_if(chart->rows.begin(), chart->rows.end(), [&](const study::SettingRow& r) { return r.band == band; });
    return found == chart->rows.end() ? nullptr : &*found;
}

QString SettingsView::nowWords() const
{
    const auto levers = study::settingLevers(document().antenna().shape);
    if (!levers || levers->coarse.empty())
        return configurationWords(document().family().configurations(document().antenna().shape), document().configuration());
    return settingWords(document().antenna().shape, levers->coarse, document().family().value(document().antenna().shape, levers->coarse),
                        system());
}

/// From the present setting to the one of the selected band.
QString SettingsView::instruction() const
{
    const auto chart = m_desk.settings();
    const study::SettingRow* row = rowOf(document().selectedBand());
    if (!chart || !row)
        return tr("Choose a band in the table: here is said how to get there from the present setting.");
    const shapes::AntennaShape& shape = document().antenna().shape;
    const QString band = bandName(row->band);
    if (!row->reached)
        return row->beyond != 0.0 ? (row->beyond > 0.0 ? tr("%1 is out of reach: it would have to be %2 longer than it can be.")
                                                       : tr("%1 is out of reach: it would have to be %2 shorter than it can be."))
                                        .arg(band, lengthWords(std::abs(row->beyond), system()))
                                  : tr("%1 cannot be set.").arg(band);
    if (chart->levers.coarse.empty())
        return tr("For %1: %2.").arg(band, configurationWords(document().family().configurations(shape), row->configuration));
    QStringList steps;
    const auto change = [&](const std::string& key) {
        const shapes::ParameterSpec* spec = document().family().spec(shape, key);
        const double now = document().family().value(shape, key), then = row->values.at(key), by = then - now;
        const double step = spec->quantity == units::Quantity::Length ? 5e-4 : 1e-3 * std::max(1e-12, std::abs(now));
        if (std::abs(by) < step)
            return;
        const QString amount = spec->quantity == units::Quantity::Length && std::abs(by) < 1.0
                                   ? smallWords(std::abs(by), system())
                                   : valueWords(std::abs(by), spec->quantity, system());
        const auto from = study::sectionsOut(shape, key, now), to = study::sectionsOut(shape, key, then);
        if (from && to && from->sections != to->sections) {
            const int sections = to->sections - from->sections;
            steps << (sections > 0 ? tr("%n section(s) more out", nullptr, sections) : tr("%n section(s) in", nullptr, -sections))
                  << tr("the next one at %1").arg(smallWords(to->rest, system()));
        } else {
            steps << (by > 0.0 ? tr("%1: %2 more") : tr("%1: %2 less")).arg(coreWords(spec->label), amount);
        }
    };
    change(chart->levers.coarse);
    for (const std::string& key : chart->levers.fine)
        change(key);
    return steps.isEmpty() ? tr("It is set for %1.").arg(band) : tr("To %1: %2.").arg(band, steps.join(QStringLiteral(", ")));
}

QString SettingsView::sentence() const
{
    if (const QString words = missing(); !words.isEmpty())
        return words;
    const auto chart = m_desk.settings();
    if (!chart && m_desk.settingsLeft())
        return tr("Not worked out: it was left. Go on below the stages.");
    if (!chart)
        return m_desk.settingFaults().empty() ? tr("Being computed over your soil …")
                                              : coreWords(m_desk.settingFaults().front().message, system());
    if (m_desk.settingsLeft())
        return tr("These settings are of the antenna before the change: go on below the stages.");
    QStringList reached, missed;
    for (const study::SettingRow& row : chart->rows) {
        const WantedBand* wanted = findBand(document().design(), row.band);
        if (wanted && (wanted->wish != Wish::No || row.reached))
            (row.reached ? reached : missed) << bandName(row.band);
    }
    if (reached.isEmpty())
        return tr("None of the wanted bands can be reached.");
    return missed.isEmpty() ? tr("Reaches %1.").arg(reached.join(QStringLiteral(", ")))
                            : tr("Reaches %1; not %2.").arg(reached.join(QStringLiteral(", ")), missed.join(QStringLiteral(", ")));
}

QString SettingsView::tableText() const
{
    QString out;
    for (const QStringList& line : m_chart->cells())
        out += line.join(QLatin1Char('\t')) + QLatin1Char('\n');
    return out;
}

void SettingsView::buildLedger(Ledger& ledger)
{
    ledger.heading(tr("Now"));
    m_now = ledger.figure(tr("Setting"));
    m_for = ledger.figure(tr("Set for"));
    m_take = ledger.button({}, QStringLiteral("takeSetting"), true);
    connect(m_take, &QPushButton::clicked, this, [this] { take(document().selectedBand()); });
    ledger.line();
    ledger.note(tr("The mount's height, the radials and the soil are those of today's design: change them on Shape and Site, and the "
                   "settings follow."));
    QPushButton* print = ledger.button(tr("Pocket card …"), QStringLiteral("pocketCard"));
    print->setToolTip(tr("The table as a PDF the size of a card"));
    connect(print, &QPushButton::clicked, this, &SettingsView::saveCard);
    m_said = ledger.note();
    ledger.caution(tr("Nobody touches the antenna while transmitting; switch off before a setting is changed."));
}

void SettingsView::refresh()
{
    if (!m_now || !offered())
        return;
    m_desk.wantSettings();
    const QString words = m_desk.settingFaults().empty() ? tr("Being computed over your soil …")
                                                         : coreWords(m_desk.settingFaults().front().message, system());
    m_chart->show(m_desk.settings(), words, instruction());
    m_now->setText(nowWords());
    const CurvePointer curve = solver().curve();
    QString isFor = tr("no wanted band");
    for (std::size_t i = 0; curve && i < curve->bands.size(); ++i)
        if (curve->bands[i].solved() && curve->bands[i].lowestSwr <= curve->question.limit) {
            isFor = bandName(curve->question.bands[i].id);
            break;
        }
    m_for->setText(isFor);
    const study::SettingRow* row = rowOf(document().selectedBand());
    m_take->setVisible(row && row->reached);
    if (row && row->reached)
        m_take->setText(tr("Set it for %1").arg(bandName(row->band)));
}

void SettingsView::take(const Id& band)
{
    const study::SettingRow* row = rowOf(band);
    if (!row || !row->reached)
        return;
    if (row->values.empty())
        document().setConfiguration(row->configuration);
    else
        document().setParameters(tr("set for %1").arg(bandName(band)), row->values);
}

void SettingsView::saveCard()
{
    const QString path =
        askForFile(m_chart->window(), tr("Pocket card"),
                   fileName(QString::fromStdString(document().antenna().name)) + QStringLiteral("-settings.pdf"), tr("PDF (*.pdf)"));
    if (path.isEmpty())
        return;
    const Faults faults = aside([path, table = m_chart->table(), name = QString::fromStdString(document().antenna().name)] {
        return writeCard(path, name, table);
    });
    m_said->setText(faults.empty() ? tr("Written to %1.").arg(path)
                                   : tr("%1 could not be written; check the folder and its permissions.").arg(path));
}

} // namespace vetchling::app
