#include "app/stages/trim/measure_panel.h"

#include "app/document/solve_service.h"
#include "app/stages/trim/trim_words.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/trim/history.h"

#include <QDateTime>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr int readingsHeight = 62; // px: three lines
constexpr int leastPoints = 41, mostSweptPoints = 401;
constexpr double kilohertz = 1e3;

QLineEdit* wordsField(Ledger& ledger, const QString& placeholder, const QString& name, const QString& objectName)
{
    auto* edit = new QLineEdit(&ledger);
    edit->setProperty("wide", true);
    edit->setPlaceholderText(placeholder);
    edit->setAccessibleName(name);
    edit->setObjectName(objectName);
    ledger.add(edit);
    return edit;
}

} // namespace

MeasurePanel::MeasurePanel(ViewContext& context, TrimDesk& desk, AnalyserDesk& analyser, MeterDesk& meter, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk), m_analyser(analyser), m_meter(meter), m_ledger(ledger)
{
    addGoal(ledger);
    ledger.line();
    addRead(ledger);
    addTyped(ledger);
    ledger.line();
    addTaken(ledger);
    ledger.line();
    addDone(ledger);
    ledger.line();
    addLearned(ledger);
    connect(&m_analyser, &AnalyserDesk::changed, this, &MeasurePanel::refreshAnalyser);
}

void MeasurePanel::addGoal(Ledger& ledger)
{
    ledger.heading(tr("Goal"));
    m_tasks = ledger.choice(tr("For"), {}, QStringLiteral("trimTask"));
    m_tasks->setToolTip(tr("Which piece all on this page is of"));
    ledger.setRowVisible(m_tasks, false);
    connect(m_tasks, &QComboBox::activated, this, [this](int place) { emit pieceChosen(std::size_t(place)); });
    m_target = ledger.value(tr("Dip wanted at"), units::Quantity::Frequency, QStringLiteral("trimTarget"));
    m_target->setRange(lowestFrequency, highestFrequency);
    connect(m_target, &ValueEdit::edited, this, [this](double value) { emit targetTyped(value); });
}

void MeasurePanel::addRead(Ledger& ledger)
{
    ledger.heading(tr("Read"));
    m_sweepNow = ledger.button(tr("Sweep"), QStringLiteral("sweepNow"), true);
    connect(m_sweepNow, &QPushButton::clicked, this, &MeasurePanel::sweepAsked);
    m_from = ledger.value(tr("From"), units::Quantity::Frequency, QStringLiteral("sweepFrom"));
    m_to = ledger.value(tr("To"), units::Quantity::Frequency, QStringLiteral("sweepTo"));
    for (ValueEdit* edge : {m_from, m_to}) {
        edge->setRange(lowestFrequency, highestFrequency);
        edge->setHelp(tr("what is swept; empty: round the dip that is expected and the goal"));
        connect(edge, &ValueEdit::edited, this, &MeasurePanel::refreshAnalyser);
    }
    m_rangeNote = ledger.note();
    m_rangeNote->setObjectName(QStringLiteral("sweepRangeNote"));
    m_state = ledger.figure(tr("Analyser"));
    m_state->setObjectName(QStringLiteral("analyserState"));
    const auto both =
        ledger.buttons({{tr("Calibrate …"), QStringLiteral("calibrate")}, {tr("Serial port …"), QStringLiteral("serialPort")}});
    m_calibrate = both[0];
    connect(both[0], &QPushButton::clicked, this, &MeasurePanel::calibrateAsked);
    connect(both[1], &QPushButton::clicked, this, &MeasurePanel::portAsked);
    const auto files =
        ledger.buttons({{tr("Open a sweep …"), QStringLiteral("openSweep")}, {tr("Watch a folder …"), QStringLiteral("watchFolder")}});
    connect(files[0], &QPushButton::clicked, this, &MeasurePanel::openAsked);
    connect(files[1], &QPushButton::clicked, this, &MeasurePanel::watchAsked);
    m_sweepNote = ledger.note();
    m_sweepNote->setObjectName(QStringLiteral("sweepNote"));
    m_sweepNote->hide();
    m_columns = ledger.button(tr("Other columns …"), QStringLiteral("sweepColumns"));
    m_columns->hide();
    connect(m_columns, &QPushButton::clicked, this, &MeasurePanel::columnsAsked);
}

void MeasurePanel::addTyped(Ledger& ledger)
{
    ledger.fold(tr("Only a meter? Read or type"), QStringLiteral("typedFold"), false);
    m_meterBox = new MeterBox(m_context, m_meter, &ledger);
    m_meterBox->setObjectName(QStringLiteral("meterBox"));
    ledger.add(m_meterBox);
    connect(m_meterBox, &MeterBox::wanted, this, &MeasurePanel::meterAsked);
    connect(m_meterBox, &MeterBox::read, this, [this](double frequency, double swr) {
        m_readings->appendPlainText(QStringLiteral("%1 %2").arg(frequency / 1e6, 0, 'f', 3).arg(swr, 0, 'f', 2));
    });
    m_readings = new QPlainTextEdit(&ledger);
    m_readings->setObjectName(QStringLiteral("readings"));
    m_readings->setAccessibleName(tr("Readings, one a line"));
    m_readings->setPlaceholderText(tr("7.00 2.4        SWR\n7.10 50/2      W out and back\n7.20 42 30    R and X"));
    m_readings->setFixedHeight(readingsHeight);
    m_readings->setTabChangesFocus(true);
    ledger.add(m_readings);
    connect(ledger.button(tr("Work out the dip"), QStringLiteral("readingsToDip")), &QPushButton::clicked, this, &MeasurePanel::workOutDip);
    m_readingsNote = ledger.note();
    m_readingsNote->setObjectName(QStringLiteral("readingsNote"));
    const auto hand = ledger.buttons({{tr("SWR fell"), QStringLiteral("handFell")}, {tr("SWR rose"), QStringLiteral("handRose")}});
    m_fell = hand[0];
    m_rose = hand[1];
    connect(m_fell, &QPushButton::clicked, this, [this] { answerHand(true); });
    connect(m_rose, &QPushButton::clicked, this, [this] { answerHand(false); });
    ledger.endFold();
}

void MeasurePanel::addTaken(Ledger& ledger)
{
    ledger.heading(tr("How it was taken"));
    m_height = ledger.value(tr("Highest wire then"), units::Quantity::Length, QStringLiteral("trimHeight"));
    m_height->setRange(0.1, 500.0);
    m_height->setHelp(tr("where it was measured lower than it will hang; empty: where it is drawn"));
    m_coax = ledger.value(tr("Through coax of"), units::Quantity::Length, QStringLiteral("trimCoax"));
    m_coax->setRange(0.0, 1000.0);
    m_coax->setHelp(tr("between the calibrated end and the feedpoint; empty: at the feedpoint. R and X are then moved to the feedpoint"));
    QStringList names;
    for (const LineType& type : m_context.lineTypes)
        names << coreWords(type.name);
    m_line = ledger.choice(tr("of the kind"), names, QStringLiteral("trimLine"));
    m_soil = ledger.choice(tr("Soil"), {tr("not noted"), tr("dry"), tr("damp"), tr("wet"), tr("frozen")}, QStringLiteral("trimSoil"));
    m_with = wordsField(ledger, tr("with: analyser, meter …"), tr("Instrument"), QStringLiteral("trimInstrument"));
    m_with->setToolTip(tr("two instruments that read the same antenna one after the other teach their difference"));
    m_weather = wordsField(ledger, tr("weather"), tr("Weather"), QStringLiteral("trimWeather"));
    m_place = wordsField(ledger, tr("place, if it travels"), tr("Place"), QStringLiteral("trimPlace"));
}

void MeasurePanel::addDone(Ledger& ledger)
{
    ledger.heading(tr("What was done, what was seen"));
    m_asCut = ledger.value(tr("Longer at first"), units::Quantity::SmallLength, QStringLiteral("trimAsCut"));
    m_asCut->setRange(-5.0, 5.0);
    connect(m_asCut, &ValueEdit::edited, this, [this](double value) { emit asCutTyped(value); });
    m_cut = ledger.value(tr("Cut since last"), units::Quantity::SmallLength, QStringLiteral("trimCut"));
    m_cutLabel = ledger.labelOf(m_cut);
    m_piece = ledger.choice(tr("Of it"), {}, QStringLiteral("trimPiece"));
    ledger.setRowVisible(m_piece, false);
    m_piece->setToolTip(tr("Which piece was cut or slid: both alike, or one alone"));
    m_folded = new QCheckBox(tr("folded back, not cut"), &ledger);
    m_folded->setObjectName(QStringLiteral("trimFolded"));
    ledger.add(m_folded);
    m_dip = ledger.value(tr("Dip at"), units::Quantity::Frequency, QStringLiteral("trimDip"));
    m_dip->setRange(lowestFrequency, highestFrequency);
    m_swr = ledger.value(tr("SWR there"), units::Quantity::Plain, QStringLiteral("trimSwr"));
    m_swr->setRange(1.0, 100.0);
    m_remark = wordsField(ledger, tr("remark"), tr("Remark"), QStringLiteral("trimRemark"));
    connect(ledger.button(tr("Write it in the log"), QStringLiteral("addMeasurement"), true), &QPushButton::clicked, this,
            &MeasurePanel::writeAsked);
    m_remove = ledger.button(tr("Take back the last"), QStringLiteral("removeMeasurement"));
    connect(m_remove, &QPushButton::clicked, this, &MeasurePanel::removeAsked);
}

void MeasurePanel::addLearned(Ledger& ledger)
{
    ledger.heading(tr("Learned so far"));
    m_modelSlope = ledger.figure(tr("Dip rises, by the model"));
    m_slope = ledger.figure(tr("With your cuts"));
    m_offset = ledger.figure(tr("Real less model"));
    m_fitted = ledger.note();
    m_fitted->setObjectName(QStringLiteral("fittedNote"));
    const auto both =
        ledger.buttons({{tr("Soil and height?"), QStringLiteral("fitSite")}, {tr("Use in the design"), QStringLiteral("useFit")}});
    m_fit = both[0];
    m_use = both[1];
    connect(m_fit, &QPushButton::clicked, this, &MeasurePanel::fitAsked);
    connect(m_use, &QPushButton::clicked, this, &MeasurePanel::fitUsed);
}

std::vector<ValueEdit*> MeasurePanel::measuredFields() const { return {m_dip, m_swr, m_cut, m_height, m_coax}; }

void MeasurePanel::startEmpty()
{
    for (ValueEdit* edit : measuredFields())
        edit->clearValue(system());
    m_remark->clear();
    m_folded->setChecked(false);
    for (ValueEdit* edge : {m_from, m_to})
        edge->clearValue(system());
    m_drafts.erase(m_task);
    bring({});
}

void MeasurePanel::leaveAntenna()
{
    for (ValueEdit* edit : {m_height, m_coax})
        edit->clearValue(system());
    m_remark->clear();
    m_folded->setChecked(false);
}

void MeasurePanel::forgetAll()
{
    m_drafts.clear();
    m_task.clear();
    startEmpty();
}

MeasurePanel::Draft MeasurePanel::taken() const
{
    const auto of = [](const ValueEdit* edit) { return edit->hasValue() ? std::optional(edit->value()) : std::nullopt; };
    return {m_sweep, m_instrument, m_when, m_corrected, m_byHand, of(m_dip), of(m_swr), of(m_cut)};
}

void MeasurePanel::bring(const Draft& draft)
{
    const auto fill = [&](ValueEdit* edit, const std::optional<double>& value) {
        value ? edit->setValue(*value, system()) : edit->clearValue(system());
    };
    m_sweep = draft.sweep;
    m_instrument = draft.instrument;
    m_when = draft.when;
    m_corrected = draft.corrected;
    m_byHand = draft.byHand;
    fill(m_dip, draft.dip);
    fill(m_swr, draft.swr);
    fill(m_cut, draft.cut);
    sayOfReadings({});
    m_both = {};
    m_fell->hide();
    m_rose->hide();
    m_readings->clear();
    say({});
    offerColumns(false);
    m_questioned = 0.0;
    m_questionedDate.clear();
    emit pendingChanged(m_sweep);
}

/// What was read for one piece is not written down for another: it waits until its own is looked at again.
void MeasurePanel::turnTo(const QString& task)
{
    if (task == m_task)
        return;
    if (!m_task.isEmpty()) {
        m_drafts[m_task] = taken();
        for (ValueEdit* edge : {m_from, m_to})
            edge->clearValue(system());
        const auto kept = m_drafts.find(task);
        bring(kept == m_drafts.end() ? Draft() : kept->second);
    }
    m_task = task;
}

/// The parameter of the piece that is cut; empty where nothing is trimmed.
std::string MeasurePanel::cutKey() const { return m_piece->currentData().toString().toStdString(); }

/// One where the antenna has no choice.
void MeasurePanel::refreshPieces()
{
    const TrimTask* task = m_desk.task();
    const auto pieces = task ? cutPieces(m_context.document.antenna(), m_desk.place()) : std::vector<shapes::Lever>();
    const QVariant chosen = m_piece->currentData();
    const QSignalBlocker quiet(m_piece);
    m_piece->clear();
    for (const shapes::Lever& lever : pieces)
        m_piece->addItem(coreWords(lever.name), QString::fromStdString(lever.parameter));
    m_piece->setCurrentIndex(std::max(0, m_piece->findData(chosen)));
    m_ledger.setRowVisible(m_piece, pieces.size() > 1);
}

/// By their bands; by piece too where two are for one band.
void MeasurePanel::refreshTasks()
{
    const QSignalBlocker quiet(m_tasks);
    m_tasks->clear();
    QStringList names;
    for (const TrimTask& task : m_desk.tasks())
        names << taskName(m_context.document.design(), task);
    for (std::size_t i = 0; i < m_desk.tasks().size(); ++i) {
        const QString name = names[qsizetype(i)], piece = coreWords(m_desk.tasks()[i].lever.name);
        m_tasks->addItem(names.count(name) > 1 ? tr("%1, %2").arg(name, piece) : name);
        m_tasks->setItemData(int(i), tr("%1, %2").arg(name, piece), Qt::ToolTipRole);
    }
    m_tasks->setCurrentIndex(m_desk.task() ? int(m_desk.place()) : -1);
    m_ledger.setRowVisible(m_tasks, m_tasks->count() > 1);
}

/// How long the piece was when it was hoisted for the first time, and where that is known from.
void MeasurePanel::refreshAsCut()
{
    const TrimTask* task = m_desk.task();
    const bool cut = task && task->lever.kind == shapes::LeverKind::Cut && m_desk.hung();
    m_ledger.setRowVisible(m_asCut, cut);
    if (!cut)
        return;
    const TrimLog& log = m_desk.hung()->trim;
    const auto longer = log.asCut.find(task->lever.parameter);
    const CutFrom from = longer == log.asCut.end() ? CutFrom::NotKnown : log.cutFrom;
    m_asCut->setHelp(from == CutFrom::CutList    ? tr("each, than planned, when it was hoisted first: the margin of the cut list")
                     : from == CutFrom::Ticked   ? tr("each, than planned, when it was hoisted first: cut by the list and ticked off")
                     : from == CutFrom::Measured ? tr("each, than planned, when it was hoisted first: as it was measured at the bench")
                     : from == CutFrom::Typed    ? tr("each, than planned, when it was hoisted first: as typed here")
                                                 : tr("each, than planned, when it was hoisted first: not known, counted as planned"));
    if (from != CutFrom::NotKnown)
        m_asCut->setValue(longer->second, system());
    else if (!m_asCut->hasFocus())
        m_asCut->clearValue(system());
}

void MeasurePanel::refresh(double target, const QString& lever, bool oneChosen)
{
    const TrimTask* task = m_desk.task();
    turnTo(task ? QString::fromStdString(m_context.document.current() + " " + task->lever.parameter) : QString());
    refreshTasks();
    refreshPieces();
    refreshAsCut();
    m_target->setEnabled(target > 0.0);
    target > 0.0 ? m_target->setValue(target, system()) : m_target->clearValue(system());
    m_remove->setEnabled(m_desk.last() != nullptr || oneChosen);
    m_remove->setText(oneChosen ? tr("Remove the chosen line") : tr("Take back the last"));
    m_cutLabel->setText(m_piece->count() > 1 || lever.isEmpty() ? tr("Cut since last") : tr("Cut since last, %1").arg(lever));
    for (ValueEdit* edit : measuredFields())
        edit->hasValue() ? edit->setValue(edit->value(), system()) : edit->clearValueUnlessTyping(system());
    m_meterBox->setChannels(channels());
    refreshAnalyser();
    refreshLearned();
}

/// Low, middle and high of the band that the goal lies in, else two percent either side of it.
std::vector<double> MeasurePanel::channels() const
{
    constexpr double part = 0.02, room = 1e3;
    const double goal = m_target->value();
    const Design& design = m_context.document.design();
    const WantedBand* band = findBand(design, bandFor(design, goal));
    if (!band || goal < band->band.from || goal > band->band.to)
        return {(1.0 - part) * goal, goal, (1.0 + part) * goal};
    return {band->band.from + room, 0.5 * (band->band.from + band->band.to), band->band.to - room};
}

void MeasurePanel::refreshAnalyser()
{
    const auto wanted = range();
    const bool upsideDown = !wanted && (m_from->hasValue() || m_to->hasValue()) && m_desk.card();
    m_rangeNote->setText(upsideDown ? tr("The range has to end above where it begins.") : QString());
    m_rangeNote->setVisible(upsideDown);
    m_sweepNow->setText(wanted ? tr("Sweep %1 to %2 MHz").arg(megahertz(wanted->from), megahertz(wanted->to)) : tr("Sweep"));
    const AnalyserDesk::State state = m_analyser.state();
    const bool idle = state == AnalyserDesk::State::Off || state == AnalyserDesk::State::Ready;
    m_sweepNow->setEnabled(wanted && idle);
    m_calibrate->setEnabled(wanted && idle);
    const QString which = m_analyser.standIn() || state == AnalyserDesk::State::Off ? tr("stand-in") : tr("serial");
    m_state->setText(state == AnalyserDesk::State::Off             ? tr("%1, off").arg(which)
                     : state == AnalyserDesk::State::Starting      ? tr("%1, starting").arg(which)
                     : state == AnalyserDesk::State::Reading       ? tr("%1, reading").arg(which)
                     : wanted && m_analyser.calibratedFor(*wanted) ? tr("%1, calibrated").arg(which)
                     : m_analyser.calibration()                    ? tr("%1, other range").arg(which)
                                                                   : tr("%1, not calibrated").arg(which));
    if (!m_analyser.trouble().isEmpty())
        say(m_analyser.trouble());
}

void MeasurePanel::refreshLearned()
{
    const bool metric = system() == units::System::Metric;
    const auto slopeWords = [&](double hertz) {
        return (metric ? tr("%1 kHz a cm") : tr("%1 kHz an inch")).arg(std::abs(hertz) * (metric ? 0.01 : 0.0254) / kilohertz, 0, 'f', 1);
    };
    const TrimNext* next = m_desk.next();
    m_slope->setText(next && next->slope != 0.0 ? slopeWords(next->slope) : tr("unknown"));
    m_modelSlope->setText(next && next->modelSlope != 0.0 ? slopeWords(next->modelSlope) : tr("unknown"));
    m_offset->setText(next && next->predicted > 0.0 ? tr("%1 kHz").arg(numberWords(next->learned.offset / kilohertz, 0)) : tr("unknown"));
    const auto fit = m_desk.fitted();
    m_fit->setEnabled(m_desk.hung() && !m_desk.hung()->trim.measurements.empty() && !m_desk.fitting());
    m_use->setEnabled(fit != nullptr && !m_desk.fitting());
    QString words;
    if (m_desk.fitting()) {
        words = tr("Fitting soil, height and length to the log …");
    } else if (fit) {
        const auto pair = [](double value, double sure, int digits) {
            return QStringLiteral("%1 ± %2").arg(value, 0, 'f', digits).arg(sure, 0, 'f', digits);
        };
        words = tr("Soil ε %1, σ %2 mS/m; hangs %3 m higher; wire %4 % longer.")
                    .arg(pair(fit->permittivity.value, fit->permittivity.sure, 0),
                         pair(1e3 * fit->conductivity.value, 1e3 * fit->conductivity.sure, 1), pair(fit->higher.value, fit->higher.sure, 2),
                         pair(100.0 * fit->longer.value, 100.0 * fit->longer.sure, 1));
        for (const FitPrediction& p : fit->bands)
            words +=
                QLatin1Char('\n') + tr("%1: dip %2 ± %3 kHz (plan %4)")
                                        .arg(QString::fromStdString(p.name), QString::number(p.dip.value / 1e6, 'f', 3),
                                             QString::number(p.dip.sure / kilohertz, 'f', 0), QString::number(p.asPlanned / 1e6, 'f', 3));
    } else if (!m_desk.fitFaults().empty()) {
        words = coreWords(m_desk.fitFaults().front().message, system());
    }
    m_fitted->setText(words);
    m_fitted->setVisible(!words.isEmpty());
}

std::optional<AnalyserDesk::Range> MeasurePanel::range() const
{
    const MeasureCard* card = m_desk.card();
    const bool typed = m_from->hasValue() || m_to->hasValue();
    if (!(card && card->to > card->from) && !(m_from->hasValue() && m_to->hasValue()))
        return std::nullopt;
    double from = m_from->hasValue() ? m_from->value() : card->from, to = m_to->hasValue() ? m_to->value() : card->to;
    if (!(to > from))
        return std::nullopt;
    if (const Calibration* known = m_analyser.calibration(); known && !typed) { // it stays where dip and goal are still well inside
        constexpr double inside = 1.01, tooWide = 3.0;
        if (known->from() <= inside * from && known->to() >= to / inside && known->to() - known->from() <= tooWide * (to - from))
            from = known->from(), to = known->to();
    }
    const int points = card && card->step > 0.0 ? int(std::ceil((to - from) / card->step)) + 1 : leastPoints;
    return AnalyserDesk::Range{std::round(from / kilohertz) * kilohertz, std::round(to / kilohertz) * kilohertz,
                               std::clamp(points, leastPoints, mostSweptPoints)};
}

double MeasurePanel::coax() const { return m_coax->hasValue() ? m_coax->value() : 0.0; }

Handling MeasurePanel::handling() const
{
    Handling h;
    if (m_desk.hung())
        for (const auto& [key, taken] : takenByLog(*m_desk.hung()))
            h.changes[key] = -taken;
    if (m_cut->hasValue() && !cutKey().empty())
        h.changes[cutKey()] -= m_cut->value();
    const auto* model = m_context.models.current();
    if (m_height->hasValue() && model && model->built)
        h.higher = m_height->value() - heightOf(*model->built);
    return h;
}

void MeasurePanel::say(const QString& words)
{
    m_sweepNote->setText(words);
    m_sweepNote->setVisible(!words.isEmpty());
}

void MeasurePanel::offerColumns(bool offered) { m_columns->setVisible(offered); }

void MeasurePanel::takeSweep(MeasuredSweep sweep, const QString& instrument, bool corrected, const QString& when)
{
    m_sweep = std::move(sweep);
    m_instrument = instrument;
    m_when = when;
    m_byHand = false;
    m_corrected = corrected;
    emit pendingChanged(m_sweep);
    const auto dip = m_sweep.dip();
    if (dip->atEdge) { // it lies beyond
        m_dip->clearValue(system());
        m_swr->clearValue(system());
        const bool lower = dip->frequency <= m_sweep.points.front().frequency;
        say((lower ? tr("%1: the SWR still falls at the lower edge, %2: the dip lies below it. Sweep further down.")
                   : tr("%1: the SWR still falls at the upper edge, %2: the dip lies above it. Sweep further up."))
                .arg(instrument, frequencyWords(dip->frequency)));
        return;
    }
    m_dip->setValue(dip->frequency, system());
    m_swr->setValue(std::max(1.0, std::round(100.0 * dip->swr) / 100.0), system());
    say(tr("%1: %2 points, lowest at %3. Add what was cut, and write it in the log.")
            .arg(instrument)
            .arg(m_sweep.points.size())
            .arg(frequencyWords(dip->frequency)));
}

std::optional<Measurement> MeasurePanel::measurement()
{
    for (ValueEdit* edit : {m_cut, m_swr, m_height, m_coax, m_dip})
        if (!edit->confirm()) {
            edit->setFocus();
            return std::nullopt;
        }
    if (!m_dip->hasValue()) {
        m_dip->setFocus();
        m_dip->ask(tr("Type where the dip was measured."));
        return std::nullopt;
    }
    Measurement m;
    m.when = (m_when.isEmpty() ? QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")) : m_when).toStdString();
    m.remark = m_remark->text().trimmed().toStdString();
    m.cutSinceLast = m_cut->hasValue() ? m_cut->value() : 0.0;
    m.folded = m_folded->isChecked();
    m.coax = coax();
    m.weather = m_weather->text().trimmed().toStdString();
    m.place = m_place->text().trimmed().toStdString();
    m.soil = SoilState(std::max(0, m_soil->currentIndex()));
    if (m_height->hasValue())
        m.height = m_height->value();
    if (!m_sweep.points.empty()) {
        const int kind = m_line->currentIndex();
        const bool known = kind >= 0 && kind < int(m_context.lineTypes.size());
        m_desk.takeSweep(m_sweep, m_corrected, m.coax, known ? &m_context.lineTypes[std::size_t(kind)] : nullptr, m);
        m.instrument = m_instrument.toStdString();
    }
    if (const QString with = m_with->text().trimmed(); !with.isEmpty())
        m.instrument = with.toStdString();
    m.dip = m_sweep.points.empty() || m_dip->value() != m_sweep.dip()->frequency ? m_dip->value() : m.dip;
    if (m_sweep.points.empty() || m_byHand || !(m.dipSwr >= 1.0))
        m.dipSwr = m_swr->hasValue() ? m_swr->value() : 0.0;
    if (m_context.document.family().configurations(m_context.document.antenna().shape).size() > 1)
        m.configuration = m_context.document.configuration();
    if (m.cutSinceLast != 0.0)
        m.parameter = cutKey();
    else if (const TrimTask* task = m_desk.task())
        m.parameter = task->lever.parameter;
    return m;
}

bool MeasurePanel::question(double dip, double expected)
{
    if (m_questioned == dip)
        return false;
    m_questioned = dip;
    m_dip->ask(tr("%1? The model expects %2. If it was read so, press again.").arg(frequencyWords(dip), frequencyWords(expected)));
    return true;
}

bool MeasurePanel::questionDate(const Measurement& m)
{
    const std::string now = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")).toStdString();
    if (m_questionedDate == m.when || possibleDate(m.when, now))
        return false;
    m_questionedDate = m.when;
    say(tr("Written down on %1? That is the date of its file. If it was then, press again.").arg(QString::fromStdString(m.when)));
    return true;
}

void MeasurePanel::sayOfReadings(const QString& words)
{
    m_readingsNote->setText(words);
    m_readingsNote->setVisible(!words.isEmpty());
}

void MeasurePanel::workOutDip()
{
    m_fell->hide();
    m_rose->hide();
    const auto worked = m_desk.workOut(m_readings->toPlainText().toStdString());
    if (!worked) {
        sayOfReadings(tr("The model is not there yet."));
        return;
    }
    const Result<ReadDip>& read = *worked;
    if (!read) {
        const Fault& fault = read.faults().front();
        sayOfReadings(fault.path.empty() ? coreWords(fault.message, system())
                                         : tr("In %1: %2").arg(QString::fromStdString(fault.path), coreWords(fault.message, system())));
        return;
    }
    if (read->both) {
        m_both = *read->both;
        const auto place = [](const std::optional<double>& f) { return f ? frequencyWords(*f) : tr("nowhere near"); };
        sayOfReadings(
            tr("One reading can mean two things: too long, with the dip at %1, or too short, at %2. Read a second frequency; or bring "
               "a hand near an end, never touching, and say what the SWR did.")
                .arg(place(m_both.ifTooLong), place(m_both.ifTooShort)));
        m_fell->setVisible(m_both.ifTooShort.has_value());
        m_rose->setVisible(m_both.ifTooLong.has_value());
        return;
    }
    if (!read->dip) {
        sayOfReadings(tr("Type a frequency and an SWR in each line, two lines or more."));
        return;
    }
    const double dip = *read->dip;
    m_sweep = {}; // the log keeps what was read
    emit pendingChanged(m_sweep);
    for (const SwrReading& r : read->readings)
        m_sweep.points.push_back({r.frequency, std::nullopt, r.swr});
    m_instrument = tr("meter");
    m_byHand = true;
    m_corrected = false;
    m_dip->setValue(dip, system());
    sayOfReadings(tr("The dip is near %1: %2. It is filled in below; write it in the log.")
                      .arg(frequencyWords(dip), dip < m_target->value() ? tr("too long") : tr("too short")));
}

void MeasurePanel::answerHand(bool fell)
{
    const auto dip = dipByHand(m_both, fell);
    m_fell->hide();
    m_rose->hide();
    if (!dip)
        return;
    m_dip->setValue(*dip, system());
    sayOfReadings(
        fell ? tr("It was too short there: the dip is near %1. It is filled in below; write it in the log.").arg(frequencyWords(*dip))
             : tr("It was too long there: the dip is near %1. It is filled in below; write it in the log.").arg(frequencyWords(*dip)));
}

} // namespace vetchling::app
