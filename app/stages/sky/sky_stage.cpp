/// Sky: where the signal goes, at a chosen angle and bearing, on any band.
#include "app/document/sky_desk.h"
#include "app/plots/lobe_dial.h"
#include "app/stages/sky/flat_sky.h"
#include "app/stages/sky/sky_compare.h"
#include "app/stages/stage.h"
#include "app/stages/view_buttons.h"
#include "app/view/old_figures.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/bars.h"
#include "app/widgets/value_edit.h"
#include "core/study/sky.h"

#include <QCheckBox>

#include <algorithm>
#include <cmath>

namespace vetchling::app {

using study::azimuthOf, study::bearingOf, study::hopDistance;

namespace {

class SkyStage final : public Stage {
    Q_OBJECT
public:
    SkyStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_desk(context.document, context.solver), m_dial(new LobeDial(context)), m_flat(new FlatSky(context)),
          m_compare(new SkyCompare(context))
    {
        context.add(m_desk.waitings());
        addConfigurations();
        tellsFigures({m_dial, m_flat});
        paleWhileOld(m_desk.waitings(), m_compare);
        m_views = new ViewButtons(*m_page, QStringLiteral("skyViews"), this);
        m_views->add(tr("Cut"), QStringLiteral("skyCut"), m_dial);
        m_views->add(tr("All round"), QStringLiteral("skyRound"), m_flat);
        m_views->add(tr("Compare"), QStringLiteral("skyAgainst"), m_compare);
        connect(m_views, &ViewButtons::chosen, this, &SkyStage::refresh);
        const auto look = [this](double elevation, double bearing) {
            m_dial->setAim(elevation, bearing);
            refresh();
        };
        for (AimedCanvas* view : std::initializer_list<AimedCanvas*>{m_dial, m_flat, m_compare})
            connect(view, &AimedCanvas::aimed, this, look);
        connect(&m_desk, &SkyDesk::gridReady, this, &SkyStage::refresh);
        connect(&m_desk, &SkyDesk::comparisonReady, this, &SkyStage::refresh);
        connect(&solver(), &SolveService::detailReady, this, &SkyStage::aimOnce);
        connect(&solver(), &SolveService::pinChanged, this, &SkyStage::refresh);
        connect(&document(), &Document::currentChanged, this, [this] { m_aimed = false; });
    }

    QString id() const override { return QStringLiteral("sky"); }
    QString name() const override { return tr("Sky"); }
    Canvas* canvas() override { return static_cast<Canvas*>(m_views->current()); }

    QString summary() const override
    {
        const study::Spot* spot = this->spot();
        return spot ? tr("%1 dBi at %2°").arg(decibelWords(spot->strongest)).arg(degrees(spot->strongestElevation), 0, 'f', 0)
               : document().hasAntenna() && solver().busy() ? tr("being computed")
                                                            : tr("nothing to show yet");
    }

    QString tableText() const override
    {
        if (m_views->current() == m_compare) {
            QString table;
            for (const QStringList& line : m_compare->cells())
                table += line.join(QLatin1Char('\t')) + QLatin1Char('\n');
            return table;
        }
        QString out =
            tr("band\tMHz\tdBi at %1° bearing %2°\tEIRP W\tstrongest dBi\tat °\n").arg(m_dial->elevation()).arg(m_dial->bearing());
        if (const DetailPointer detail = solver().detail())
            for (const study::Spot& s : detail->spots)
                out += QStringLiteral("%1\t%2\t%3\t%4\t%5\t%6\n")
                           .arg(bandName(s))
                           .arg(s.solution.frequency / 1e6, 0, 'f', 3)
                           .arg(gainAt(s), 0, 'f', 2)
                           .arg(eirp(gainAt(s)), 0, 'f', 0)
                           .arg(s.strongest, 0, 'f', 2)
                           .arg(degrees(s.strongestElevation), 0, 'f', 0);
        return out;
    }

    void refresh() override
    {
        refreshConfigurations();
        const study::Spot* spot = this->spot();
        buildLedgerWhenOthers();
        refreshViews();
        const QString where = m_views->current() == m_flat ? tr("Sky on %1, all round") : tr("Sky on %1");
        m_page->setTitle(spot ? where.arg(bandName(*spot)) : tr("Sky"));
        m_page->setSentence(sentence());
        refreshBands();
        refreshFlat(spot);
        m_distance->setValue(std::round(hopDistance(radians(m_dial->elevation())) / distanceUnit()), system());
        m_angle->setValue(m_dial->elevation(), system());
        m_bearing->setValue(m_dial->bearing(), system());
        if (!spot) {
            for (QLabel* figure : {m_straightUp, m_width, m_eirp, m_overFlat})
                figure->setText(QStringLiteral("–"));
            return;
        }
        m_straightUp->setText(spot->straightUp > -40.0 ? tr("%1 dBi").arg(decibelWords(spot->straightUp)) : tr("nothing"));
        m_width->setText(tr("%1°").arg(degrees(spot->lobeWidth), 0, 'f', 0));
        m_eirp->setText(tr("%1 W").arg(eirp(spot->strongest), 0, 'f', 0));
        refreshTable();
        refreshGrounds();
        refreshElsewhere();
        refreshPinned();
    }

private:
    const study::Spot* spot() const
    {
        const DetailPointer detail = solver().detail();
        return detail ? detail->spot() : nullptr;
    }

    QString bandName(const study::Spot& s) const
    {
        const WantedBand* band = findBand(document().design(), s.band);
        return band ? QString::fromStdString(band->band.name) : QString();
    }

    /// What the ground farther off does is told where there is any.
    void refreshFlat(const study::Spot* s)
    {
        const Site& site = document().design().site;
        const bool any = !site.farGrounds.empty() || !site.profiles.empty();
        const auto lobes = m_desk.lobes();
        m_ledger->setRowVisible(m_overFlat, any);
        m_farGround->setVisible(any);
        m_asFlat->setVisible(any);
        m_asFlat->setChecked(site.countsAsFlat);
        if (any && s && lobes)
            m_overFlat->setText(tr("%1 dBi").arg(decibelWords(lobes->ground ? lobes->ground->flat.there : lobes->shown.there)));
    }

    double gainAt(const study::Spot& s) const
    {
        return s.field->gain(radians(std::max(0.1, m_dial->elevation())), azimuthOf(m_dial->bearing()));
    }
    double eirp(double gain) const { return document().design().operation.power * std::pow(10.0, 0.1 * gain); }

    /// The first answer for an antenna looks where the bands are judged; without a wanted bearing along the antenna's strongest.
    void aimOnce()
    {
        if (const study::Spot* spot = this->spot(); spot && !m_aimed) {
            m_aimed = true;
            const Operation& op = document().design().operation;
            m_dial->setAim(op.aimElevation, op.aimBearing.value_or(std::round(bearingOf(spot->strongestAzimuth))));
        }
    }

    /// m a unit in which distances are asked for.
    double distanceUnit() const { return system() != units::System::Metric ? 1609.344 : 1000.0; }

    void refreshViews()
    {
        const bool comparing = m_views->current() == m_compare;
        if (m_views->current() == m_flat)
            m_desk.wantGrid();
        if (comparing)
            m_desk.wantComparison();
        const study::Spot* spot = this->spot();
        for (AimedCanvas* view : std::initializer_list<AimedCanvas*>{m_flat, m_compare})
            view->setAim(m_dial->elevation(), m_dial->bearing());
        m_desk.look(m_dial->elevation(), m_dial->bearing());
        m_dial->show(m_desk.lobes());
        m_flat->show(spot ? m_desk.grid() : nullptr, spot ? gainAt(*spot) : 0.0);
        m_compare->show(m_desk.comparison());
    }

    /// Antennas to be compared are rows of the ledger: it is made anew when others are there, or distances are told otherwise.
    void buildLedgerWhenOthers()
    {
        QString key = system() != units::System::Metric ? QStringLiteral("mi") : QStringLiteral("km");
        for (const Antenna& a : document().design().antennas)
            key += QString::fromStdString("|" + a.id + "|" + a.name);
        if (document().hasAntenna() && !document().antenna().variants.empty())
            key += QStringLiteral("|variants");
        if (key == m_ledgerOf)
            return;
        m_ledgerOf = key;
        m_ledger->clear();
        buildLedger();
    }

    void buildCompared()
    {
        m_ledger->fold(tr("Compared"), QStringLiteral("fold compared"), true);
        for (const Antenna& a : document().design().antennas) {
            auto* box = new QCheckBox(QString::fromStdString(a.name), m_ledger);
            box->setObjectName(QStringLiteral("compare ") + QString::fromStdString(a.id));
            box->setChecked(m_desk.compares(a.id));
            connect(box, &QCheckBox::toggled, this, [this, id = a.id](bool on) { m_desk.setCompared(id, on); });
            m_ledger->add(box);
        }
        if (document().hasAntenna() && !document().antenna().variants.empty()) {
            auto* variants = new QCheckBox(tr("Variants of the one on show"), m_ledger);
            variants->setObjectName(QStringLiteral("compareVariants"));
            variants->setChecked(m_desk.comparesVariants());
            connect(variants, &QCheckBox::toggled, &m_desk, &SkyDesk::setComparesVariants);
            m_ledger->add(variants);
        }
        auto* verticals = new QCheckBox(tr("Verticals of ¼ to 1 wave"), m_ledger);
        verticals->setObjectName(QStringLiteral("compareVerticals"));
        verticals->setToolTip(tr("On 16 radials over this soil, for the selected band"));
        verticals->setChecked(m_desk.comparesVerticals());
        connect(verticals, &QCheckBox::toggled, &m_desk, &SkyDesk::setComparesVerticals);
        m_ledger->add(verticals);
        m_ledger->endFold();
        m_ledger->line();
    }

    void look(double elevation)
    {
        m_dial->setAim(elevation, m_dial->bearing());
        refresh();
    }

    void addPresets()
    {
        constexpr double region = 500e3; // m
        const double regional = std::round(degrees(study::hopElevation(region)));
        const auto buttons = m_ledger->buttons(
            {{tr("Far"), QStringLiteral("lookLow")}, {tr("500 km"), QStringLiteral("lookRegion")}, {tr("Up"), QStringLiteral("lookUp")}});
        buttons[0]->setToolTip(tr("As far as one hop goes: 5 degrees"));
        buttons[1]->setToolTip(tr("By one hop to about 500 km"));
        buttons[2]->setToolTip(tr("Straight up: the nearest contacts"));
        connect(buttons[0], &QPushButton::clicked, this, [this] { look(5.0); });
        connect(buttons[1], &QPushButton::clicked, this, [this, regional] { look(regional); });
        connect(buttons[2], &QPushButton::clicked, this, [this] { look(90.0); });
        QPushButton* judge = m_ledger->button(tr("Judge the bands by this"), QStringLiteral("judgeByThis"));
        judge->setToolTip(tr("Bands then counts gain towards this angle and bearing"));
        connect(judge, &QPushButton::clicked, this, [this] {
            document().edit(tr("change the wanted angle"), {}, [&](Design& d) {
                d.operation.aimElevation = std::max(0.5, m_dial->elevation());
                d.operation.aimBearing = m_dial->bearing();
            });
        });
    }

    void buildLedger()
    {
        m_ledger->heading(tr("Where to"));
        m_band = m_ledger->choice(tr("Band"), {}, QStringLiteral("skyBand"));
        connect(m_band, &QComboBox::activated, this,
                [this](int index) { document().selectBand(m_band->itemData(index).toString().toStdString()); });
        m_distance = m_ledger->value(system() != units::System::Metric ? tr("One hop, miles") : tr("One hop, km"), units::Quantity::Plain,
                                     QStringLiteral("skyDistance"));
        m_distance->setRange(1.0, 4000.0);
        m_distance->setHelp(tr("off the F layer at 300 km, over a round earth"));
        connect(m_distance, &ValueEdit::edited, this, [this](double value) {
            look(std::clamp(std::round(10.0 * degrees(study::hopElevation(value * distanceUnit()))) / 10.0, 0.5, 90.0));
        });
        m_angle = m_ledger->value(tr("Angle above horizon"), units::Quantity::Angle, QStringLiteral("skyAngle"));
        m_angle->setRange(0.5, 90.0);
        m_bearing = m_ledger->value(tr("Bearing"), units::Quantity::Angle, QStringLiteral("skyBearing"));
        m_bearing->setRange(0.0, 360.0);
        connect(m_angle, &ValueEdit::edited, this, [this](double value) {
            m_dial->setAim(value, m_dial->bearing());
            refresh();
        });
        connect(m_bearing, &ValueEdit::edited, this, [this](double value) {
            m_dial->setAim(m_dial->elevation(), value);
            refresh();
        });
        addPresets();
        m_ledger->line();
        buildCompared();
        m_tableHeading = new QLabel(m_ledger);
        m_tableHeading->setProperty("role", "heading");
        m_ledger->add(m_tableHeading);
        m_table = new CompareBars(m_context.theme, m_ledger);
        m_table->setObjectName(QStringLiteral("skyTable"));
        m_ledger->add(m_table);
        m_tableNote = m_ledger->note();
        m_ledger->line();
        m_ledger->heading(tr("Strongest lobe"));
        m_width = m_ledger->figure(tr("Width to half power"));
        m_eirp = m_ledger->figure(tr("EIRP there"));
        m_straightUp = m_ledger->figure(tr("Straight up"));
        m_overFlat = m_ledger->figure(tr("There over flat ground"));
        m_asFlat = new QCheckBox(tr("Count the ground as flat"), m_ledger);
        m_asFlat->setObjectName(QStringLiteral("skyAsFlat"));
        m_asFlat->setToolTip(tr("On every page, until it is taken back: hills and sea farther off stay as they are on Site"));
        connect(m_asFlat, &QCheckBox::clicked, this, [this](bool on) {
            document().edit(on ? tr("count the ground as flat") : tr("count the ground as it is"), {},
                            [on](Design& d) { d.site.countsAsFlat = on; });
        });
        m_ledger->add(m_asFlat);
        m_farGround = m_ledger->note(
            tr("Solved over the ground along each bearing. Gains by the sea that were told before were up to 6 dB too high."));
        m_ledger->line();
        m_ledger->heading(tr("If the ground were …"));
        m_wet = m_ledger->figure(tr("sea water"));
        m_dry = m_ledger->figure(tr("dry ground"));
        m_ledger->line();
        buildElsewhere();
        m_ledger->line();
        m_ledger->heading(tr("Against the pinned design"));
        m_pinned = m_ledger->note();
        m_ledger->caution(
            tr("RF exposure: high EIRP needs distance. Check the limits of your licence before transmitting where people can be."));
        m_ledger->finish();
    }

    void refreshBands()
    {
        const DetailPointer detail = solver().detail();
        m_band->clear();
        if (!detail)
            return;
        for (std::size_t i = 0; i < detail->spots.size(); ++i) {
            m_band->addItem(tr("%1, %2").arg(bandName(detail->spots[i]),
                                             QString::fromStdString(units::formatFrequency(detail->spots[i].solution.frequency))),
                            QString::fromStdString(detail->spots[i].band));
            if (i == detail->selected)
                m_band->setCurrentIndex(int(i));
        }
    }

    void refreshTable()
    {
        m_tableHeading->setText(tr("At %1°, bearing %2°, by band").arg(m_dial->elevation(), 0, 'f', 0).arg(m_dial->bearing(), 0, 'f', 0));
        std::vector<CompareBars::Row> rows;
        const Colours& c = m_context.theme.colours();
        const DetailPointer detail = solver().detail();
        for (const study::Spot& s : detail->spots) {
            const double gain = gainAt(s);
            rows.push_back({bandName(s), tr("%1 dBi   %2 W").arg(decibelWords(gain)).arg(eirp(gain), 0, 'f', eirp(gain) < 10 ? 1 : 0),
                            std::max(0.01, gain + 20.0), &s == detail->spot() ? c.petal : c.leafMid});
        }
        m_table->setRows(std::move(rows));
        const study::Spot* spot = this->spot();
        const bool behind = spot && spot->behindTransformer;
        m_tableNote->setText((behind ? tr("Radiated that way from %1 W into the transformer; mismatch and feed line not counted.")
                                     : tr("Radiated that way from %1 W at the feedpoint; mismatch and feed line not counted."))
                                 .arg(document().design().operation.power));
    }

    /// Why another program says otherwise.
    void buildElsewhere()
    {
        m_ledger->fold(tr("Why does another program say otherwise?"), QStringLiteral("fold elsewhere"), false);
        m_here = m_ledger->figure(tr("Strongest, as told here"));
        m_withoutNearLoss = m_ledger->figure(tr("Without near-ground loss"));
        m_perfect = m_ledger->figure(tr("Over perfect ground"));
        m_theirs = m_ledger->value(tr("They say, dBi"), units::Quantity::Plain, QStringLiteral("gainTheirs"));
        m_theirs->setRange(-100.0, 100.0);
        m_theirs->clearValue(system());
        connect(m_theirs, &ValueEdit::edited, this, [this] { refreshElsewhere(); });
        m_whose = m_ledger->note();
        m_whose->setObjectName(QStringLiteral("gainWhose"));
        m_ledger->endFold();
    }

    void refreshElsewhere()
    {
        const DetailPointer detail = solver().detail();
        const study::GainElsewhere* told = detail && detail->elsewhere ? &*detail->elsewhere : nullptr;
        const auto gain = [](double dBi) { return tr("%1 dBi").arg(decibelWords(dBi)); };
        m_here->setText(detail ? gain(detail->strongestHere) : QString());
        m_withoutNearLoss->setText(told ? gain(told->strongestWithoutNearLoss) : tr("not told"));
        m_perfect->setText(told ? gain(told->strongestPerfect) : tr("not told"));
        if (!told)
            m_whose->setText(tr("Wires in the soil or on it have no counterpart over perfect ground."));
        else if (m_theirs->hasValue())
            m_whose->setText(coreWords(study::whoseGain(m_theirs->value(), detail->strongestHere, *told), system()));
        else
            m_whose->setText(tr("Type another program's figure for %1: which of the three it probably is, stands here.")
                                 .arg(frequencyWords(detail->spot()->solution.frequency)));
    }

    void refreshGrounds()
    {
        const DetailPointer detail = solver().detail();
        QLabel* labels[] = {m_wet, m_dry};
        for (std::size_t i = 0; i < detail->otherGrounds.size() && i < 2; ++i) {
            const double there =
                detail->otherGrounds[i].field->gain(radians(std::max(0.1, m_dial->elevation())), azimuthOf(m_dial->bearing()));
            const double difference = there - gainAt(*spot());
            labels[i]->setText(
                tr("%1%2 dB").arg(difference < 0.0 ? QStringLiteral("−") : QStringLiteral("+")).arg(std::abs(difference), 0, 'f', 1));
        }
    }

    void refreshPinned()
    {
        const DetailPointer pinned = solver().pinnedDetail();
        const study::Spot* other = pinned ? pinned->spotOfBand(spot()->band) : nullptr;
        if (!other) {
            m_pinned->setText(pinned ? tr("The pinned design has no result on this band.")
                                     : tr("Pin a design (P) to compare others with it."));
            return;
        }
        const double at = gainAt(*spot()) - gainAt(*other), up = spot()->straightUp - other->straightUp;
        const auto words = [](double d) {
            return d < 0.0 ? tr("%1 dB weaker").arg(-d, 0, 'f', 1) : tr("%1 dB stronger").arg(d, 0, 'f', 1);
        };
        QString text = tr("%1 than %2 at %3°").arg(words(at), solver().pinnedName()).arg(m_dial->elevation(), 0, 'f', 0);
        if (std::abs(up) < 60.0)
            text += tr("; %1 straight up").arg(words(up));
        m_pinned->setText(text + QStringLiteral("."));
    }

    QString sentence() const
    {
        if (const QString fault = faultSentence(); !fault.isEmpty())
            return tr("This shape cannot be computed: %1.").arg(fault);
        const study::Spot* spot = this->spot();
        if (!document().hasAntenna())
            return tr("Add an antenna with + at the top.");
        if (!spot)
            return solver().busy() ? tr("Being computed …") : tr("No band is wanted yet: wish one under Bands.");
        if (m_views->current() == m_compare) {
            const QString lead = m_compare->lead();
            return lead.isEmpty() ? tr("Choose at the right which antennas are compared.")
                                  : lead + tr("  Pale: SWR over 3 there. Mismatch and line are not counted; 6 dB are one S-unit.");
        }
        if (m_views->current() == m_flat && spot)
            return tr("Darker is stronger; low angles are drawn wide, since they carry farthest. Strongest %1 dBi; %2 dBi where you look.")
                .arg(decibelWords(spot->strongest), decibelWords(gainAt(*spot)));
        if (const auto lobes = m_desk.lobes(); lobes && lobes->ground)
            return groundSentence(*lobes);
        const double angle = degrees(spot->strongestElevation);
        const QString use = angle > 60.0   ? tr("good for near contacts, up to a few hundred km")
                            : angle > 35.0 ? tr("good from the next valley to about 1000 km")
                                           : tr("good for far contacts");
        return tr("Strongest at %1°, bearing %2° (%3 dBi): %4; %5 dBi at the %6° where you look.")
            .arg(angle, 0, 'f', 0)
            .arg(bearingOf(spot->strongestAzimuth), 0, 'f', 0)
            .arg(decibelWords(spot->strongest), use, decibelWords(gainAt(*spot)))
            .arg(m_dial->elevation(), 0, 'f', 0);
    }

    /// In decibels, towards here and there.
    QString groundSentence(const SkyDesk::Lobes& lobes) const
    {
        const auto does = [](double decibels) {
            return decibels < 0.0 ? tr("takes %1 dB").arg(-decibels, 0, 'f', 1) : tr("gives %1 dB").arg(decibels, 0, 'f', 1);
        };
        const auto to = [](double bearing) { return tr("%1°").arg(std::fmod(bearing, 360.0), 3, 'f', 0, QLatin1Char('0')); };
        return tr("Towards %1 the ground %2 at %3° against flat ground, towards %4 it %5; %6 dBi where you look.")
            .arg(to(lobes.bearing), does(lobes.ground->there))
            .arg(lobes.elevation, 0, 'f', 0)
            .arg(to(lobes.bearing + 180.0), does(lobes.ground->behind), decibelWords(lobes.shown.there));
    }

    SkyDesk m_desk;
    ViewButtons* m_views = nullptr;
    LobeDial* m_dial;
    FlatSky* m_flat;
    SkyCompare* m_compare;
    QString m_ledgerOf; ///< antennas and units its rows were made for
    bool m_aimed = false;
    QCheckBox* m_asFlat = nullptr;
    QComboBox* m_band = nullptr;
    ValueEdit *m_angle = nullptr, *m_bearing = nullptr, *m_distance = nullptr;
    CompareBars* m_table = nullptr;
    QLabel *m_tableHeading = nullptr, *m_tableNote = nullptr, *m_straightUp = nullptr, *m_overFlat = nullptr, *m_farGround = nullptr,
           *m_width = nullptr, *m_eirp = nullptr, *m_wet = nullptr, *m_dry = nullptr, *m_pinned = nullptr;
    QLabel *m_here = nullptr, *m_withoutNearLoss = nullptr, *m_perfect = nullptr, *m_whose = nullptr;
    ValueEdit* m_theirs = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeSkyStage(ViewContext& context, QObject* parent) { return std::make_unique<SkyStage>(context, parent); }

} // namespace vetchling::app

#include "sky_stage.moc"
