#include "app/stages/trim/log_panel.h"

#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <QDateTime>

namespace vetchling::app {
namespace {

QLineEdit* noteField(Ledger& ledger, const QString& placeholder, const QString& objectName)
{
    auto* edit = new QLineEdit(&ledger);
    edit->setProperty("wide", true);
    edit->setPlaceholderText(placeholder);
    edit->setAccessibleName(placeholder);
    edit->setObjectName(objectName);
    ledger.add(edit);
    return edit;
}

} // namespace

LogPanel::LogPanel(ViewContext& context, LogDesk& desk, LogBoard& board, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk), m_board(board)
{
    addChosen(ledger);
    ledger.line();
    addReport(ledger);
    ledger.line();
    ledger.heading(tr("Where it was before"));
    m_places = ledger.note();
    m_places->setObjectName(QStringLiteral("logPlaces"));
    ledger.line();
    addWays(ledger);
    connect(&board, &LogBoard::chosenChanged, this, &LogPanel::refresh);
}

void LogPanel::addChosen(Ledger& ledger)
{
    ledger.heading(tr("The chosen entry"));
    m_which = ledger.note();
    m_which->setObjectName(QStringLiteral("logChosen"));
    m_when = noteField(ledger, tr("when: 2026-05-12 10:40"), QStringLiteral("logWhen"));
    connect(m_when, &QLineEdit::editingFinished, this, &LogPanel::mendDate);
    m_soil = ledger.choice(tr("Soil"), {tr("not noted"), tr("dry"), tr("damp"), tr("wet"), tr("frozen")}, QStringLiteral("logSoil"));
    connect(m_soil, &QComboBox::activated, this,
            [this](int index) { set(tr("note the soil"), [index](Measurement& m) { m.soil = SoilState(index); }); });
    m_weather = noteField(ledger, tr("weather"), QStringLiteral("logWeather"));
    m_place = noteField(ledger, tr("place, if it travels"), QStringLiteral("logPlace"));
    connect(m_weather, &QLineEdit::editingFinished, this, [this] {
        if (one() && m_weather->text().trimmed().toStdString() != one()->weather)
            set(tr("note the weather"), [words = m_weather->text().trimmed().toStdString()](Measurement& m) { m.weather = words; });
    });
    connect(m_place, &QLineEdit::editingFinished, this, [this] {
        if (one() && m_place->text().trimmed().toStdString() != one()->place)
            set(tr("note the place"), [words = m_place->text().trimmed().toStdString()](Measurement& m) { m.place = words; });
    });
    const auto all = ledger.buttons({{tr("Picture …"), QStringLiteral("logAddPicture")},
                                     {tr("Show"), QStringLiteral("logShowPicture")},
                                     {tr("Drop"), QStringLiteral("logDropPictures")}});
    m_addPicture = all[0], m_showPicture = all[1], m_dropPictures = all[2];
    connect(m_addPicture, &QPushButton::clicked, this, &LogPanel::picturesAsked);
    connect(m_showPicture, &QPushButton::clicked, this, [this] {
        if (one() && !one()->pictures.empty())
            emit pictureAsked(QString::fromStdString(one()->pictures.back()));
    });
    connect(m_dropPictures, &QPushButton::clicked, this, [this] { set(tr("drop pictures"), [](Measurement& m) { m.pictures.clear(); }); });
}

void LogPanel::addReport(Ledger& ledger)
{
    ledger.heading(tr("A report from the air"));
    m_frequency = ledger.value(tr("On"), units::Quantity::Frequency, QStringLiteral("reportFrequency"));
    m_frequency->setRange(lowestFrequency, highestFrequency);
    m_distance = ledger.value(tr("Distance, km"), units::Quantity::Plain, QStringLiteral("reportDistance"));
    m_distanceLabel = ledger.labelOf(m_distance);
    m_distance->setRange(0.0, 20100.0);
    m_bearing = ledger.value(tr("Bearing"), units::Quantity::Angle, QStringLiteral("reportBearing"));
    m_bearing->setRange(0.0, 360.0);
    m_power = ledger.value(tr("Power"), units::Quantity::Power, QStringLiteral("reportPower"));
    m_power->setRange(0.0, 1e5);
    m_solarFlux = ledger.value(tr("Solar flux"), units::Quantity::Plain, QStringLiteral("reportSolarFlux"));
    m_solarFlux->setRange(50.0, 500.0);
    m_kIndex = ledger.value(tr("Geomagnetic K"), units::Quantity::Plain, QStringLiteral("reportKIndex"));
    m_kIndex->setRange(0.0, 9.0);
    m_fading =
        ledger.choice(tr("Fading"), {tr("not noted"), tr("none"), tr("slow"), tr("fast"), tr("deep")}, QStringLiteral("reportFading"));
    m_report = noteField(ledger, tr("report: 59, −12 dB …"), QStringLiteral("reportText"));
    m_reportRemark = noteField(ledger, tr("remark on it"), QStringLiteral("reportRemark"));
    connect(ledger.button(tr("Write the report down"), QStringLiteral("addReport")), &QPushButton::clicked, this, &LogPanel::writeReport);
    m_reportSaid = ledger.note();
    m_reportSaid->setObjectName(QStringLiteral("reportSaid"));
    m_reportSaid->hide();
    for (ValueEdit* edit : reportFields())
        edit->clearValue(m_context.system());
}

void LogPanel::addWays(Ledger& ledger)
{
    const auto ways = ledger.buttons({{tr("Save CSV …"), QStringLiteral("logCsv")}, {tr("Page (PDF) …"), QStringLiteral("logPage")}});
    connect(ways[0], &QPushButton::clicked, this, &LogPanel::csvAsked);
    connect(ways[1], &QPushButton::clicked, this, &LogPanel::pageAsked);
    m_said = ledger.note();
    m_said->setObjectName(QStringLiteral("logSaid"));
    m_said->hide();
}

/// An entry may be written down the day after.
void LogPanel::mendDate()
{
    const Measurement* m = one();
    if (!m)
        return;
    QString typed = m_when->text().trimmed().replace(QLatin1Char(' '), QLatin1Char('T'));
    if (typed.toStdString() == m->when)
        return;
    if (!dayOf(typed.toStdString())) {
        say(tr("Write the date as 2026-05-12, or with the time as 2026-05-12 10:40."));
        m_when->setText(QString::fromStdString(m->when).replace(QLatin1Char('T'), QLatin1Char(' ')));
        return;
    }
    const std::string now = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")).toStdString();
    if (!possibleDate(typed.toStdString(), now) && m_questionedDate != typed) {
        m_questionedDate = typed;
        say(tr("%1? Enter it once more if it was then.").arg(m_when->text().trimmed()));
        m_when->setText(QString::fromStdString(m->when).replace(QLatin1Char('T'), QLatin1Char(' ')));
        return;
    }
    say({});
    set(tr("mend the date"), [when = typed.toStdString()](Measurement& changed) { changed.when = when; });
}

const Measurement* LogPanel::one() const
{
    const auto chosen = m_board.chosen();
    return chosen.size() == 1 ? m_desk.measurement(chosen.front()) : nullptr;
}

void LogPanel::set(const QString& text, const std::function<void(Measurement&)>& change)
{
    if (const Measurement* m = one())
        m_desk.changeMeasurement(Id(m->id), text, change);
}

void LogPanel::say(const QString& words)
{
    m_said->setText(words);
    m_said->setVisible(!words.isEmpty());
}

void LogPanel::refresh()
{
    const auto chosen = m_board.chosen();
    const Measurement* m = one();
    m_which->setText(m                    ? tr("Dip at %1").arg(frequencyWords(m->dip))
                     : chosen.size() == 2 ? tr("Two are chosen: they are compared above.")
                     : chosen.size() == 1 ? tr("A report; Delete removes it.")
                                          : tr("Choose a line; with Ctrl a second one to compare it with."));
    for (QWidget* w : std::initializer_list<QWidget*>{m_when, m_soil, m_weather, m_place, m_addPicture})
        w->setEnabled(m != nullptr);
    m_showPicture->setEnabled(m && !m->pictures.empty());
    m_dropPictures->setEnabled(m && !m->pictures.empty());
    m_soil->setCurrentIndex(m ? int(m->soil) : 0);
    if (!m_when->hasFocus())
        m_when->setText(m ? QString::fromStdString(m->when).replace(QLatin1Char('T'), QLatin1Char(' ')) : QString());
    if (!m_weather->hasFocus())
        m_weather->setText(m ? QString::fromStdString(m->weather) : QString());
    if (!m_place->hasFocus())
        m_place->setText(m ? QString::fromStdString(m->place) : QString());
    m_distanceLabel->setText(m_context.system() == units::System::Metric ? tr("Distance, km") : tr("Distance, miles"));
    m_distance->setAccessibleName(m_distanceLabel->text());
    QStringList places;
    for (const PlaceMemory& p : m_desk.places()) {
        QStringList settings;
        for (const auto& [name, value] : p.settings)
            settings << tr("%1 %2").arg(coreWords(name), lengthWords(value, m_context.system()));
        places << tr("Last time at %1 (%2): %3; dip %4.")
                      .arg(QString::fromStdString(p.place), QString::fromStdString(p.when).left(10), settings.join(QStringLiteral(", ")),
                           frequencyWords(p.dip));
    }
    m_places->setText(places.isEmpty()
                          ? tr("An antenna that travels: note the place with each entry, and its last settings there stand here.")
                          : places.join(QLatin1Char('\n')));
    for (ValueEdit* edit : reportFields())
        edit->hasValue() ? edit->setValue(edit->value(), m_context.system()) : edit->clearValueUnlessTyping(m_context.system());
}

void LogPanel::writeReport()
{
    const auto complain = [this](const QString& words) {
        m_reportSaid->setText(words);
        m_reportSaid->setVisible(!words.isEmpty());
    };
    for (ValueEdit* edit : reportFields())
        if (!edit->confirm()) {
            edit->setFocus();
            return;
        }
    if (!m_context.document.hasAntenna())
        return complain(tr("Add an antenna with + at the top first."));
    if (!m_frequency->hasValue() || m_report->text().trimmed().isEmpty())
        return complain(tr("A report needs its frequency, and what was reported."));
    constexpr double kilometre = 1e3, mile = 1609.344;
    AirReport r;
    r.when = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")).toStdString();
    r.frequency = m_frequency->value();
    r.distance = m_distance->hasValue() ? m_distance->value() * (m_context.system() == units::System::Metric ? kilometre : mile) : 0.0;
    if (m_bearing->hasValue())
        r.bearing = m_bearing->value();
    r.power = m_power->hasValue() ? m_power->value() : 0.0;
    if (m_solarFlux->hasValue())
        r.solarFlux = m_solarFlux->value();
    if (m_kIndex->hasValue())
        r.kIndex = m_kIndex->value();
    r.fading = Fading(std::max(0, m_fading->currentIndex()));
    r.report = m_report->text().trimmed().toStdString();
    r.remark = m_reportRemark->text().trimmed().toStdString();
    if (const Faults faults = findReportFaults(r); !faults.empty())
        return complain(coreWords(faults.front().message, m_context.system()));
    complain({});
    m_desk.addReport(std::move(r));
    for (ValueEdit* edit : reportFields())
        edit->clearValue(m_context.system());
    m_fading->setCurrentIndex(0);
    m_report->clear();
    m_reportRemark->clear();
}

} // namespace vetchling::app
