/// Shape: the antenna to scale, where it hangs, how long it is and why, and where the power goes.
#include "app/document/trade_desk.h"
#include "app/plots/scene/scene.h"
#include "app/plots/trade_chart.h"
#include "app/stages/shape/tune_panel.h"
#include "app/stages/stage.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/bars.h"
#include "app/widgets/value_edit.h"
#include "core/tune/slips.h"

#include <QButtonGroup>
#include <QStackedWidget>
#include <QStyle>
#include <QToolButton>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

const std::string placeGroup = shapes::standsGroup;
const std::vector<study::Length> noLengths;
const std::string otherwise = "tune otherwise"; // of m_open

class ShapeStage final : public Stage {
    Q_OBJECT
public:
    ShapeStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_scene(new Scene(context)), m_trade(new TradeChart(context)), m_views(new QStackedWidget),
          m_tradeDesk(context.document, context.solver)
    {
        m_views->setObjectName(QStringLiteral("shapeViews"));
        m_views->addWidget(m_scene);
        m_views->addWidget(m_trade);
        m_page->body()->addWidget(m_views, 1);
        connect(&m_tradeDesk, &TradeDesk::ready, this, [this] { refreshTrade(); });
        connect(m_trade, &TradeChart::taken, this, &ShapeStage::takePair);
        addConfigurations();
        addViewButtons();
    }

    QString id() const override { return QStringLiteral("shape"); }
    QString name() const override { return tr("Shape"); }
    Canvas* canvas() override { return tradeShown() ? static_cast<Canvas*>(m_trade) : m_scene; }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("no antenna yet");
        const Antenna& a = document().antenna();
        const shapes::TunedLength* shown = lengthShown();
        if (!shown)
            return tr("kept as it is");
        const shapes::ParameterSpec* spec = family().spec(a.shape, shown->parameter);
        return tr("%1 %2").arg(valueWords(family().value(a.shape, spec->key), spec->quantity, system()), coreWords(shown->name));
    }

    void refresh() override
    {
        refreshConfigurations();
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Shape"));
            m_page->setSentence(tr("Add an antenna with + at the top."));
            m_panel.reset();
            m_ledger->clear();
            m_layout.clear();
            return;
        }
        const Antenna& a = document().antenna();
        m_page->setTitle(QString::fromStdString(a.name));
        m_page->setSentence(sentence());
        refreshTrade();
        const std::string layout = a.shape.family + "|" + family().layout(a.shape);
        if (m_layout != layout || m_antennaShown != document().current())
            buildLedger(a, layout);
        if (!m_bars)
            return; // a family of a newer program has no inputs
        for (const auto& [key, edit] : m_edits) {
            edit->setDesignFrequency(a.shape.designFrequency);
            const auto typed = a.typed.find(key);
            edit->setValue(family().value(a.shape, key), system(),
                           typed == a.typed.end() ? QString() : QString::fromStdString(typed->second));
        }
        for (const auto& [key, box] : m_choices)
            box->setCurrentIndex(int(std::lround(family().value(a.shape, key))));
        m_frequency->setValue(a.shape.designFrequency, system());
        refreshWire(a);
        refreshSlips(a);
        refreshLengths(a);
        refreshKept();
        m_panel->refresh();
        refreshPower();
    }

private:
    const shapes::Family& family() const { return document().family(); }

    void addViewButtons()
    {
        auto* group = new QButtonGroup(this);
        auto* box = new QHBoxLayout;
        box->setSpacing(0);
        const std::pair<QString, SceneView> views[] = {
            {tr("Side"), SceneView::Side}, {tr("Plan"), SceneView::Plan}, {tr("Turn"), SceneView::Turn}};
        for (const auto& [words, view] : views) {
            auto* button = new QToolButton;
            button->setText(words);
            button->setProperty("segment", true);
            button->setCheckable(true);
            button->setChecked(view == SceneView::Side);
            button->setObjectName(QStringLiteral("view%1").arg(int(view)));
            button->setAccessibleName(tr("%1 view").arg(words));
            group->addButton(button);
            box->addWidget(button);
            connect(button, &QToolButton::clicked, m_scene, [this, view = view] {
                m_scene->setView(view);
                m_views->setCurrentWidget(m_scene);
                refresh();
            });
        }
        m_tradeButton = new QToolButton;
        m_tradeButton->setText(tr("Trade"));
        m_tradeButton->setProperty("segment", true);
        m_tradeButton->setCheckable(true);
        m_tradeButton->setObjectName(QStringLiteral("viewTrade"));
        m_tradeButton->setAccessibleName(tr("Trade view"));
        m_tradeButton->setToolTip(tr("What it costs to make it shorter"));
        group->addButton(m_tradeButton);
        box->addWidget(m_tradeButton);
        connect(m_tradeButton, &QToolButton::clicked, this, [this] {
            m_views->setCurrentWidget(m_trade);
            refresh();
        });
        m_sideButton = qobject_cast<QToolButton*>(group->buttons().front());
        m_page->header()->addLayout(box);
        m_page->header()->setAlignment(box, Qt::AlignTop);
    }

    void buildLedger(const Antenna& a, const std::string& layout)
    {
        m_layout = layout;
        m_antennaShown = document().current();
        m_edits.clear();
        m_choices.clear();
        m_bars = nullptr;
        m_panel.reset();
        m_ledger->clear();
        if (family().tuned(a.shape).empty()) {
            m_ledger->note(coreWords(family().summary()));
            m_ledger->finish();
            return;
        }
        std::vector<std::string> groups; // in the order they first appear; the place comes last
        for (const shapes::ParameterSpec& spec : family().specs(a.shape))
            if (std::find(groups.begin(), groups.end(), spec.group) == groups.end() && spec.group != placeGroup)
                groups.push_back(spec.group);
        const auto beforeCard = std::stable_partition(groups.begin(), groups.end(), [&](const std::string& group) { return holdsLengths(group); });
        for (auto group = groups.begin(); group != groups.end(); ++group) {
            if (group == beforeCard)
                addLengthCard();
            addGroup(*group);
        }
        if (beforeCard == groups.end())
            addLengthCard();
        m_ledger->fold(tr("Wire"), QStringLiteral("fold wire"), true);
        addWire();
        m_ledger->endFold();
        m_ledger->line();
        addGroup(placeGroup);
        m_rulesNote = m_ledger->note();
        m_caution = m_ledger->caution({});
        m_ledger->finish();
    }

    /// What stands above the length card: where it hangs, and what is tuned.
    bool holdsLengths(const std::string& group) const
    {
        const shapes::AntennaShape& shape = document().antenna().shape;
        if (group == shapes::hangsGroup || group == shapes::lengthGroup)
            return true;
        const auto tuned = family().tuned(shape);
        return std::any_of(tuned.begin(), tuned.end(),
                           [&](const shapes::TunedLength& t) { return family().spec(shape, t.parameter)->group == group; });
    }

    int rowsOf(const std::string& group) const
    {
        const auto& specs = family().specs(document().antenna().shape);
        return int(std::count_if(specs.begin(), specs.end(), [&](const shapes::ParameterSpec& s) { return s.group == group; }));
    }

    /// Few groups are: those above the card as far as it stays in sight, and below it those with few rows that are not the place.
    bool opensAtFirst(const std::string& group) const
    {
        constexpr int roomAbove = 10, few = 4; // rows
        if (!holdsLengths(group))
            return group != placeGroup && rowsOf(group) <= few;
        return group != shapes::hangsGroup || rowsOf(shapes::hangsGroup) + rowsOf(shapes::lengthGroup) <= roomAbove;
    }

    void addGroup(const std::string& group)
    {
        const auto chosen = m_open.find(group); // what was folded or opened stays so, whatever the antenna
        QToolButton* heading = m_ledger->fold(coreWords(group), QStringLiteral("fold ") + QString::fromStdString(group),
                                              chosen == m_open.end() ? opensAtFirst(group) : chosen->second);
        connect(heading, &QToolButton::toggled, this, [this, group](bool open) { m_open[group] = open; });
        for (const shapes::ParameterSpec& spec : family().specs(document().antenna().shape))
            if (spec.group == group)
                addParameter(spec);
        m_ledger->endFold();
        m_ledger->line();
    }

    void addLengthCard()
    {
        m_lengthHeading = new QLabel(m_ledger);
        m_lengthHeading->setProperty("role", "heading");
        m_lengthHeading->setWordWrap(true);
        m_ledger->add(m_lengthHeading);
        m_bars = new CompareBars(m_context.theme, m_ledger);
        m_bars->setObjectName(QStringLiteral("lengthCard"));
        m_ledger->add(m_bars);
        m_lengthNote = m_ledger->note();
        m_lengthNote->setObjectName(QStringLiteral("lengthNote"));
        m_goal = m_ledger->choice(tr("Tune for"), {tr("resonance, X = 0"), tr("lowest SWR")}, QStringLiteral("tuneGoal"));
        connect(m_goal, &QComboBox::activated, this, [this](int index) {
            document().editAntenna(tr("change what to tune for"), {}, [&](Antenna& a) { a.tuneForLowestSwr = index == 1; });
        });
        m_tune = m_ledger->button({}, QStringLiteral("tuneButton"), true);
        connect(m_tune, &QPushButton::clicked, this, &ShapeStage::takeTuned);
        addKept();
        m_ledger->line();
        const auto chosen = m_open.find(otherwise);
        QToolButton* heading = m_ledger->fold(tr("Tune otherwise"), QStringLiteral("fold tune"), chosen != m_open.end() && chosen->second);
        connect(heading, &QToolButton::toggled, this, [this](bool open) { m_open[otherwise] = open; });
        m_panel = std::make_unique<TunePanel>(m_context, *m_ledger, nullptr);
        m_ledger->endFold();
        m_ledger->line();
        m_powerHeading = new QLabel(m_ledger);
        m_powerHeading->setProperty("role", "heading");
        m_powerHeading->setWordWrap(true);
        m_ledger->add(m_powerHeading);
        m_power = new ShareBar(m_context.theme, m_ledger);
        m_ledger->add(m_power);
        m_certainty = m_ledger->note();
        m_certainty->setObjectName(QStringLiteral("certaintyNote"));
        m_ledger->line();
    }

    /// The state before the last pair or link was added, and the way back to it.
    void addKept()
    {
        m_keptNote = m_ledger->note();
        m_keptNote->setObjectName(QStringLiteral("keptNote"));
        m_goBack = m_ledger->button(tr("Go back to it"), QStringLiteral("goBack"));
        connect(m_goBack, &QPushButton::clicked, this, [this] {
            document().editAntenna(tr("go back to what was kept"), {}, [](Antenna& a) {
                if (!a.copies.empty() && takeCopy(a, a.copies.back().id))
                    a.copies.pop_back();
            });
        });
    }

    void refreshKept()
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
            moves << tr("%1 by %2%3 kHz").arg(frequencyWords(m.from), kilohertz < 0.0 ? QStringLiteral("−") : QStringLiteral("+")).arg(std::abs(kilohertz), 0, 'f', 0);
        }
        const QString name = QString::fromStdString(document().antenna().copies.back().name);
        m_keptNote->setText(moves.isEmpty() ? tr("Kept as it was before (%1).").arg(name)
                                            : tr("Kept as it was before (%1). Since then its dips moved: %2.").arg(name, moves.join(QStringLiteral(", "))));
    }

    void addParameter(const shapes::ParameterSpec& spec)
    {
        const QString label = coreWords(spec.label), object = QString::fromStdString(spec.key);
        if (!spec.choices.empty()) {
            QStringList words;
            for (const std::string& w : spec.choices)
                words << coreWords(w);
            QComboBox* box = m_ledger->choice(label, words, object);
            box->setToolTip(coreWords(spec.help));
            connect(box, &QComboBox::activated, this, [this, key = spec.key](int index) { document().setParameter(key, index, {}); });
            m_choices[spec.key] = box;
            return;
        }
        ValueEdit* edit = m_ledger->value(label, spec.quantity, object);
        edit->setRange(spec.lowest, spec.highest);
        edit->setHelp(coreWords(spec.help));
        connect(edit, &ValueEdit::edited, this, [this, key = spec.key](double value, const QString& typed, bool dragging) {
            document().setParameter(key, value, typed, dragging);
        });
        m_edits[spec.key] = edit;
    }

    void addWire()
    {
        m_part = nullptr;
        const std::vector<shapes::Part> parts = family().parts();
        if (parts.size() > 1) {
            QStringList names{tr("all that is not set apart")};
            for (const shapes::Part& p : parts)
                names << coreWords(p.name);
            m_part = m_ledger->choice(tr("Part"), names, QStringLiteral("wirePart"));
            connect(m_part, &QComboBox::activated, this, [this] { refreshWire(document().antenna()); });
        }
        QStringList names;
        for (const files::Conductor& c : m_context.conductors)
            names << QString::fromStdString(c.name);
        m_conductor = m_ledger->choice(tr("Conductor"), names, QStringLiteral("conductor"));
        connect(m_conductor, &QComboBox::activated, this, [this](int index) {
            const files::Conductor chosen = m_context.conductors[std::size_t(index)];
            editWire(tr("change conductor"), {}, [&](shapes::WireChoice& wire) {
                wire.conductor = chosen.id;
                wire.metal = chosen.metal;
            });
        });
        m_diameter = m_ledger->value(tr("Diameter, gauge or mm²"), units::Quantity::WireSize, QStringLiteral("wireDiameter"));
        m_diameter->setRange(2e-5, 0.5);
        connect(m_diameter, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            editWire(tr("change wire size"), dragging ? QStringLiteral("wire ") + QString::fromStdString(partShown()) : QString(),
                     [&](shapes::WireChoice& wire) { wire.diameter = value; });
        });
        m_jacket = m_ledger->value(tr("Jacket, thickness"), units::Quantity::WireSize, QStringLiteral("wireJacket"));
        m_jacket->setRange(0.0, 0.05);
        connect(m_jacket, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            editWire(tr("change jacket"), dragging ? QStringLiteral("jacket ") + QString::fromStdString(partShown()) : QString(),
                     [&](shapes::WireChoice& wire) { wire.jacket = value; });
        });
        m_frequency = m_ledger->value(tr("Design frequency"), units::Quantity::Frequency, QStringLiteral("designFrequency"));
        m_frequency->setRange(lowestFrequency, highestFrequency);
        connect(m_frequency, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            document().editAntenna(tr("change design frequency"), dragging ? QStringLiteral("frequency") : QString(),
                                   [&](Antenna& a) { a.shape.designFrequency = value; });
        });
    }

    /// Id of the part whose wire is looked at; empty for all that is not set apart.
    std::string partShown() const
    {
        const auto parts = family().parts();
        const int place = m_part ? m_part->currentIndex() - 1 : -1;
        return place >= 0 && place < int(parts.size()) ? parts[std::size_t(place)].id : std::string();
    }

    template <class Change> void editWire(const QString& text, const QString& mergeKey, Change change)
    {
        const std::string part = partShown();
        document().editAntenna(text, mergeKey, [&](Antenna& a) {
            if (part.empty())
                change(a.shape.wire);
            else
                change(a.shape.partWires.try_emplace(part, a.shape.wire).first->second);
        });
    }

    void refreshWire(const Antenna& a)
    {
        const shapes::WireChoice& wire = shapes::wireOf(a.shape, partShown());
        m_diameter->setValue(wire.diameter, system());
        m_jacket->setValue(wire.jacket, system());
        for (std::size_t i = 0; i < m_context.conductors.size(); ++i)
            if (m_context.conductors[i].id == wire.conductor)
                m_conductor->setCurrentIndex(int(i));
    }

    /// A typed length that looks like a slip of the hand is asked about, quietly.
    void refreshSlips(const Antenna& a)
    {
        const DetailPointer detail = solver().detail();
        for (const shapes::TunedLength& t : family().tuned(a.shape)) {
            const auto edit = m_edits.find(t.parameter);
            if (edit == m_edits.end() || family().spec(a.shape, t.parameter)->quantity != units::Quantity::Length)
                continue;
            const std::vector<shapes::RuleOfThumb> rules = family().rules(a.shape, t);
            double belongs = rules.empty() ? 0.0 : rules.front().value;
            for (const study::Length& l : detail ? detail->lengths : std::vector<study::Length>())
                if (l.what.parameter == t.parameter && l.solved)
                    belongs = *l.solved;
            const auto question =
                a.typed.contains(t.parameter) ? slipQuestion(family().value(a.shape, t.parameter), belongs, rules) : std::nullopt;
            edit->second->ask(question ? coreWords(*question, system()) : QString());
        }
    }

    /// The tuned length that is looked at; null before anything is built.
    const AntennaModel::Ruled* ruledLength() const
    {
        const AntennaModel* model = m_context.models.current();
        const std::size_t place = study::lengthAskedFor(solver().question());
        return model && place < model->lengths.size() ? &model->lengths[place] : nullptr;
    }
    const shapes::TunedLength* lengthShown() const
    {
        const AntennaModel::Ruled* ruled = ruledLength();
        return ruled ? &ruled->what : nullptr;
    }

    /// What was solved for it; null before.
    const study::Length* solvedLength() const
    {
        const DetailPointer detail = solver().detail();
        const shapes::TunedLength* shown = lengthShown();
        for (const study::Length& l : detail && shown ? detail->lengths : noLengths)
            if (l.what.parameter == shown->parameter)
                return &l;
        return nullptr;
    }

    void refreshLengths(const Antenna& a)
    {
        const AntennaModel* model = m_context.models.current();
        const AntennaModel::Ruled* ruled = ruledLength();
        if (!ruled || ruled->rules.empty())
            return;
        const shapes::TunedLength& tuned = ruled->what;
        const shapes::ParameterSpec* spec = family().spec(a.shape, tuned.parameter);
        const bool isLength = spec->quantity == units::Quantity::Length;
        const auto figure = [&](double v) { return valueWords(v, spec->quantity, system()); };
        const std::vector<shapes::RuleOfThumb>& rules = ruled->rules;
        const Colours& c = m_context.theme.colours();
        const double now = family().value(a.shape, spec->key);
        m_lengthHeading->setText((isLength ? tr("Length %1 for %2") : tr("Inductance %1 for %2"))
                                     .arg(coreWords(tuned.name), frequencyWords(tuned.frequency)));
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
        QStringList others;
        for (const shapes::RuleOfThumb& rule : rules)
            others << (rule.feetMegahertz > 0.0
                           ? tr("%1 ft·MHz (%2 m·MHz): %3, %4")
                                 .arg(rule.feetMegahertz)
                                 .arg(rule.metreMegahertz, 0, 'f', 1)
                                 .arg(figure(rule.value), coreWords(rule.assumption))
                           : tr("%1: %2, %3").arg(coreWords(rule.name), figure(rule.value), coreWords(rule.assumption)));
        m_rulesNote->setText(tr("Constants handed down: ") + others.join(QStringLiteral("; ")) + QStringLiteral("."));
        const bool done = solved && solved->solved && !tunable();
        m_tune->setText((done ? tr("Tuned to %1") : tr("Tune to %1")).arg(tuneWords()));
        m_tune->setEnabled(solved && solved->solved); // pressed once it stays, and keeps the focus
        if (m_tune->property("strong").toBool() == done) {
            m_tune->setProperty("strong", !done);
            m_tune->style()->unpolish(m_tune);
            m_tune->style()->polish(m_tune);
        }
    }

    /// Whether a solved length differs from what is drawn.
    bool tunable() const
    {
        const DetailPointer detail = solver().detail();
        const shapes::AntennaShape& shape = document().antenna().shape;
        return detail && std::any_of(detail->lengths.begin(), detail->lengths.end(), [&](const study::Length& l) {
                   return l.solved && std::abs(*l.solved / family().value(shape, l.what.parameter) - 1.0) > 2e-4;
               });
    }

    bool tradeShown() const { return m_views->currentWidget() == m_trade; }

    /// Only shortened antennas have something to trade; another one goes back to the side view.
    void refreshTrade()
    {
        const bool has = document().hasAntenna() && family().trade().has_value();
        m_tradeButton->setVisible(has);
        if (!has && tradeShown()) {
            m_sideButton->click();
            return;
        }
        if (!tradeShown())
            return;
        m_tradeDesk.want();
        const auto curve = m_tradeDesk.curve();
        if (curve && !curve->points.empty()) {
            m_trade->show(curve, family().value(document().antenna().shape, curve->what.free));
            m_page->setSentence(tradeSentence(*curve));
        } else {
            m_trade->say(m_tradeDesk.busy() ? tr("Being computed over your soil …")
                                            : m_tradeDesk.faults().empty() ? QString() : coreWords(m_tradeDesk.faults().front().message, system()));
            m_page->setSentence(tr("Pairs that are all resonant at %1.").arg(frequencyWords(document().antenna().shape.designFrequency)));
        }
    }

    QString tradeSentence(const study::TradeCurve& curve) const
    {
        const auto words = [&](const study::TradePoint& p) {
            const shapes::ParameterSpec* free = family().spec(document().antenna().shape, curve.what.free);
            return tr("%1: %2 kHz under 2:1, %3 % into the sky")
                .arg(valueWords(p.free, free->quantity, system()))
                .arg(p.width / 1e3, 0, 'f', 0)
                .arg(100.0 * p.efficiency, 0, 'f', 0);
        };
        return tr("%1; %2. All of these are resonant: click a pair to take it.").arg(words(curve.points.front()), words(curve.points.back()));
    }

    void takePair(int point)
    {
        const auto curve = m_tradeDesk.curve();
        if (!curve || point < 0 || point >= int(curve->points.size()))
            return;
        const study::TradePoint& pair = curve->points[std::size_t(point)];
        document().setParameters(tr("take a pair"), {{curve->what.free, pair.free}, {curve->what.solved, pair.solved}});
    }

    /// Every frequency that a length is tuned to.
    QString tuneWords() const
    {
        QStringList all;
        for (const shapes::TunedLength& t : family().tuned(document().antenna().shape))
            if (!all.contains(frequencyWords(t.frequency)))
                all << frequencyWords(t.frequency);
        return all.size() > 2 ? tr("%n frequencies", nullptr, int(all.size())) : all.join(tr(" and "));
    }

    static QString causeWords(study::LengthCause::What what)
    {
        using What = study::LengthCause::What;
        switch (what) {
        case What::Transformer: return tr("matching to the transformer");
        case What::Jacket: return tr("jacket");
        case What::HeightAndSoil: return tr("height and soil");
        case What::Bends: return tr("slope and bends");
        case What::Thickness: return tr("thickness");
        case What::Rule: return tr("what the constant leaves open");
        }
        return {};
    }

    /// "jacket −1.9 %, height and soil +0.6 %".
    QString causesText(const std::vector<study::LengthCause>& causes) const
    {
        constexpr double worthSaying = 0.05; // percent
        QStringList parts;
        for (const study::LengthCause& cause : causes) {
            const double percent = 100.0 * cause.share;
            if (std::abs(percent) >= worthSaying)
                parts << tr("%1 %2%3 %").arg(causeWords(cause.what), percent < 0.0 ? QStringLiteral("−") : QStringLiteral("+")).arg(std::abs(percent), 0, 'f', 1);
        }
        return parts.join(QStringLiteral(", "));
    }

    QString lengthNote(double rule) const
    {
        const study::Length* length = solvedLength();
        if (!length)
            return solver().faults().empty() ? tr("Solving on your soil …") : QString();
        if (!length->solved)
            return coreWords(length->fault, system());
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

    void refreshPower()
    {
        const double power = document().design().operation.power;
        const DetailPointer detail = solver().detail();
        const study::Spot* spot = detail ? detail->spot() : nullptr;
        m_powerHeading->setText(
            spot ? tr("Where %1 W goes, %2").arg(power).arg(QString::fromStdString(units::formatFrequency(spot->solution.frequency)))
                 : tr("Where the power goes"));
        const Colours& c = m_context.theme.colours();
        if (detail && detail->ledger)
            m_power->setShares({{tr("sky"), detail->ledger->sky, c.sky},
                                {tr("soil"), detail->ledger->soil, c.inkFaint},
                                {tr("wire"), detail->ledger->wire, c.brick},
                                {tr("coils"), detail->ledger->loads, c.petal},
                                {tr("transformer"), detail->ledger->transformer, c.leafMid}},
                               power);
        else
            m_power->setShares({}, power);
        if (spot) {
            const Complex z = spot->solution.impedance;
            const bool sure = spot->solution.impedanceErrorPercent <= em::usualErrorPercent;
            m_certainty->setText((sure
                                      ? tr("%1 at the %4, known to about %2 %; each share is computed on its own, together %3 %.")
                                      : tr("%1 at the %4, but only known to about %2 %; each share is computed on its own, together %3 %."))
                                     .arg(impedanceText(z.real(), z.imag()))
                                     .arg(std::max(0.1, spot->solution.impedanceErrorPercent), 0, 'f', 1)
                                     .arg(detail->ledger ? 100.0 * detail->ledger->sum() : 100.0, 0, 'f', 1)
                                     .arg(spot->behindTransformer ? tr("line, behind the transformer") : tr("feed")));
        } else
            m_certainty->setText({});
        m_caution->setText(cautionText());
    }

    /// RF burns, where they apply: the voltage at open ends and at an end-fed feedpoint.
    QString cautionText() const
    {
        const DetailPointer detail = solver().detail();
        if (!detail || !(detail->endVoltsAtOneWatt > 0.0))
            return {};
        const double volts = detail->endVoltsAtOneWatt * std::sqrt(document().design().operation.power);
        QString words = tr("RF burns: about %1 kV at the wire's ends at full power. Keep them out of reach; nobody touches the wire while "
                           "transmitting.")
                            .arg(volts / 1000.0, 0, 'f', 1);
        if (solver().curve() && solver().curve()->built->highVoltageFeed)
            words += tr(" The feedpoint of this antenna carries high voltage too.");
        return words;
    }

    QString sentence() const
    {
        if (const QString fault = faultSentence(); !fault.isEmpty())
            return tr("This cannot be computed: %1.").arg(fault);
        const CurvePointer curve = solver().curve();
        if (!curve)
            return tr("Being computed over your soil …");
        QString words = tr("Dip ×1 at %1, SWR %2").arg(frequencyWords(curve->fundamental), swrText(curve->swrAt(curve->fundamental)));
        words +=
            curve->resonance
                ? tr("; X = 0 at %1, %2 Ω").arg(curve->resonance->frequency / 1e6, 0, 'f', 3).arg(curve->resonance->resistance, 0, 'f', 0)
                : tr("; nowhere resonant near %1").arg(frequencyWords(document().antenna().shape.designFrequency));
        if (const Coverage* c = curve->band(document().selectedBand()); c && c->solved())
            words += c->shareUnderLimit > 0.0
                         ? tr(" · under %1 from %2 to %3")
                               .arg(curve->question.limit)
                               .arg(c->wholeFrom / 1e6, 0, 'f', 3)
                               .arg(c->wholeTo / 1e6, 0, 'f', 3)
                         : tr(" · SWR %1 at best on %2").arg(swrText(c->lowestSwr), QString::fromStdString(c->band.name));
        const AntennaModel* model = m_context.models.current();
        for (const RangeNote& note : model ? model->notes : std::vector<RangeNote>())
            words += tr(" · Out of range at the mark: %1.").arg(coreWords(note.message, system()));
        return words;
    }

    void takeTuned()
    {
        const DetailPointer detail = solver().detail();
        shapes::Parameters values;
        for (const study::Length& l : detail ? detail->lengths : std::vector<study::Length>())
            if (l.solved)
                values[l.what.parameter] = *l.solved;
        if (!values.empty())
            document().setParameters(tr("tune"), values);
    }

    Scene* m_scene;
    TradeChart* m_trade;
    QStackedWidget* m_views;
    QToolButton *m_tradeButton = nullptr, *m_sideButton = nullptr;
    TradeDesk m_tradeDesk;
    std::string m_layout; ///< family and layout the ledger was made for
    Id m_antennaShown;
    std::map<std::string, ValueEdit*> m_edits;
    std::map<std::string, QComboBox*> m_choices;
    std::map<std::string, bool> m_open; ///< groups that were folded or opened by hand
    ValueEdit *m_frequency = nullptr, *m_diameter = nullptr, *m_jacket = nullptr;
    QComboBox *m_part = nullptr, *m_conductor = nullptr, *m_goal = nullptr;
    QLabel *m_lengthHeading = nullptr, *m_lengthNote = nullptr, *m_rulesNote = nullptr, *m_powerHeading = nullptr, *m_certainty = nullptr,
           *m_caution = nullptr;
    std::unique_ptr<TunePanel> m_panel;
    CompareBars* m_bars = nullptr;
    ShareBar* m_power = nullptr;
    QLabel* m_keptNote = nullptr;
    QPushButton *m_tune = nullptr, *m_goBack = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeShapeStage(ViewContext& context, QObject* parent) { return std::make_unique<ShapeStage>(context, parent); }

} // namespace vetchling::app

#include "shape_stage.moc"
