#include "app/stages/site/ground_panel.h"

#include "app/view/words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"
#include "core/files/height_file.h"
#include "core/site/place_words.h"

#include <QCheckBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QtConcurrent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double reach = 5000.0; // m, of lines from a file

QString towardsWords(double bearing) { return QStringLiteral("%1°").arg(bearing, 3, 'f', 0, QLatin1Char('0')); }

} // namespace

GroundPanel::GroundPanel(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context), m_ledger(ledger)
{
    ledger.heading(tr("Ground farther off"));
    m_note = ledger.note();
    m_note->setObjectName(QStringLiteral("groundNote"));
    m_flat = new QCheckBox(tr("Count the ground as flat"));
    m_flat->setObjectName(QStringLiteral("countAsFlat"));
    ledger.add(m_flat);
    connect(m_flat, &QCheckBox::clicked, this, [this](bool on) {
        m_context.document.edit(on ? tr("count the ground as flat") : tr("count the ground as it is"), {},
                                [on](Design& d) { d.site.countsAsFlat = on; });
    });
    addProfiles(ledger);
    addSlope(ledger);
    addHeights(ledger);
    connect(&m_reading, &QFutureWatcherBase::finished, this, &GroundPanel::takeLines);
    connect(&context.document, &Document::designReplaced, this, [this] { m_said.clear(); });
}

void GroundPanel::addProfiles(Ledger& ledger)
{
    m_profiles = ledger.choice(tr("Bearing"), {}, QStringLiteral("profileChoice"));
    connect(m_profiles, &QComboBox::activated, this, [this](int row) {
        m_profile = m_profiles->itemData(row).toString().toStdString();
        m_point = 0;
        refresh();
        emit chosen();
    });
    m_bearing = ledger.value(tr("Towards"), units::Quantity::Angle, QStringLiteral("profileBearing"));
    m_bearing->setRange(0.0, 360.0);
    connect(m_bearing, &ValueEdit::edited, this, [this](double to, const QString&, bool stepping) {
        change(stepping ? QStringLiteral("profileBearing") : QString(), [&](GroundProfile& p) { p.bearing = std::fmod(to, 360.0); });
    });
    m_points = ledger.choice(tr("Point"), {}, QStringLiteral("profilePoint"));
    connect(m_points, &QComboBox::activated, this, [this](int row) {
        m_point = std::size_t(std::max(0, row));
        refreshPoint();
    });
    const auto length = [&](const QString& label, const char* name, double lowest, double highest, double Point::*value) {
        ValueEdit* edit = ledger.value(label, units::Quantity::Length, QLatin1String(name));
        edit->setRange(lowest, highest);
        connect(edit, &ValueEdit::edited, this, [this, value, name](double to, const QString&, bool stepping) {
            changePoint(stepping ? QLatin1String(name) : QString(), [&](Point& p) { p.*value = to; });
        });
        return edit;
    };
    m_distance = length(tr("Away from the antenna"), "pointDistance", 0.0, 1e5, &Point::distance);
    m_height = length(tr("Height over its foot"), "pointHeight", -3000.0, 3000.0, &Point::height);
    m_height->setHelp(tr("below it with a minus"));
    QStringList kinds{tr("as before it")};
    for (const Soil& s : m_context.soils)
        kinds << soilWords(s);
    m_soil = ledger.choice(tr("Ground from there"), kinds, QStringLiteral("pointSoil"));
    connect(m_soil, &QComboBox::activated, this, [this](int row) {
        changePoint({}, [&](Point& p) {
            p.soil.reset();
            if (row > 0) {
                const Soil& s = m_context.soils[std::size_t(row - 1)];
                p.soil = Point::Kind{s.id, {s.relativePermittivity, s.conductivity}, s.pairFrequency};
            }
        });
    });
    m_pointButtons = ledger.buttons({{tr("+ Bearing"), QStringLiteral("addProfile")},
                                     {tr("+ Point"), QStringLiteral("addProfilePoint")},
                                     {tr("− Point"), QStringLiteral("removeProfilePoint")}});
    connect(m_pointButtons[0], &QPushButton::clicked, this, &GroundPanel::addBearing);
    connect(m_pointButtons[1], &QPushButton::clicked, this, &GroundPanel::addPoint);
    connect(m_pointButtons[2], &QPushButton::clicked, this, &GroundPanel::removePoint);
    m_removeBearing = ledger.button(tr("Remove this bearing"), QStringLiteral("removeProfile"));
    connect(m_removeBearing, &QPushButton::clicked, this, [this] {
        if (const GroundProfile* p = profile())
            m_context.document.edit(tr("remove a bearing"), {}, [id = p->id](Design& d) {
                std::erase_if(d.site.profiles, [&](const GroundProfile& one) { return one.id == id; });
            });
    });
    m_removeAll = ledger.button(tr("Remove all bearings"), QStringLiteral("removeProfiles"));
    connect(m_removeAll, &QPushButton::clicked, this,
            [this] { replaceAll(tr("remove all bearings"), {}, m_context.document.design().site.place); });
}

void GroundPanel::addSlope(Ledger& ledger)
{
    ledger.fold(tr("A plain slope"), QStringLiteral("fold slope"), false);
    m_fall = ledger.value(tr("Falls"), units::Quantity::Angle, QStringLiteral("slopeFall"));
    m_fall->setRange(0.0, 40.0);
    m_towards = ledger.value(tr("towards"), units::Quantity::Angle, QStringLiteral("slopeTowards"));
    m_towards->setRange(0.0, 360.0);
    m_length = ledger.value(tr("down and up for"), units::Quantity::Length, QStringLiteral("slopeLength"));
    m_length->setRange(5.0, 5000.0);
    m_fall->setValue(8.0, m_context.system());
    m_towards->setValue(220.0, m_context.system());
    m_length->setValue(200.0, m_context.system());
    QPushButton* lay = ledger.button(tr("Lay it all round"), QStringLiteral("laySlope"));
    connect(lay, &QPushButton::clicked, this, &GroundPanel::laySlope);
    ledger.endFold();
}

void GroundPanel::addHeights(Ledger& ledger)
{
    ledger.fold(tr("From a file of heights"), QStringLiteral("fold heights"), false);
    m_place = ledger.name(tr("Antenna stands at"), QStringLiteral("sitePlace"));
    m_place->setToolTip(
        tr("Latitude and longitude, 54.12, −3.21, or a grid locator. For a grid in metres its east and north; empty: its middle"));
    connect(m_place, &NameEdit::named, this, [this](const QString& text) {
        const Result<GeoPlace> place = readPlace(text.toStdString());
        m_said = place ? QString() : coreWords(place.faults().front().message, m_context.system());
        if (place)
            m_context.document.edit(tr("say where the site is"), {}, [&](Design& d) { d.site.place = *place; });
        refresh();
    });
    m_open = ledger.button(tr("Open a height file …"), QStringLiteral("openHeights"));
    connect(m_open, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getOpenFileName(m_note->window(), tr("A file of heights"), m_context.dataFolder + QStringLiteral("/demo"),
                                         tr("Heights (*.txt *.asc *.hgt);;All files (*)"));
        if (!path.isEmpty())
            takeHeights(path);
    });
    m_fileNote = ledger.note(tr("A plain grid (ncols, nrows, cellsize …) or a raw one-degree tile. The demo's is in data/demo."));
    m_fileNote->setObjectName(QStringLiteral("heightsNote"));
    ledger.endFold();
}

const GroundProfile* GroundPanel::profile() const
{
    const auto& all = m_context.document.design().site.profiles;
    const auto found = std::find_if(all.begin(), all.end(), [&](const GroundProfile& p) { return p.id == m_profile; });
    if (found != all.end() || all.empty())
        return all.empty() ? nullptr : &*found;
    const double wanted = m_context.document.design().operation.aimBearing.value_or(all.front().bearing);
    const auto away = [&](const GroundProfile& p) { return -std::cos(radians(p.bearing - wanted)); };
    return &*std::min_element(all.begin(), all.end(), [&](const GroundProfile& a, const GroundProfile& b) { return away(a) < away(b); });
}

const GroundPanel::Point* GroundPanel::point() const
{
    const GroundProfile* p = profile();
    return p && !p->points.empty() ? &p->points[std::min(m_point, p->points.size() - 1)] : nullptr;
}

double GroundPanel::bearing() const
{
    const Design& d = m_context.document.design();
    if (const GroundProfile* p = profile())
        return p->bearing;
    if (!d.site.farGrounds.empty()) {
        const FarGround& g = d.site.farGrounds.front();
        const double width = g.toBearing - g.fromBearing - 360.0 * std::floor((g.toBearing - g.fromBearing) / 360.0);
        return std::fmod(g.fromBearing + 0.5 * width + 360.0, 360.0);
    }
    return d.operation.aimBearing.value_or(0.0);
}

void GroundPanel::change(const QString& key, const std::function<void(GroundProfile&)>& change)
{
    const GroundProfile* p = profile();
    if (!p)
        return;
    m_context.document.edit(tr("change the ground farther off"), key, [&, id = p->id](Design& d) {
        for (GroundProfile& one : d.site.profiles)
            if (one.id == id)
                change(one);
    });
}

/// Points stay in the order of their distances.
void GroundPanel::changePoint(const QString& key, const std::function<void(Point&)>& alter)
{
    const Point* p = point();
    if (!p)
        return;
    const std::size_t at = std::size_t(p - profile()->points.data());
    double distance = p->distance;
    std::vector<Point> after = profile()->points;
    alter(after[at]);
    for (std::size_t i = 0; i < after.size(); ++i)
        if (i != at && after[i].distance == after[at].distance && after[i].height == after[at].height) {
            m_distance->ask(tr("Another point stands there already."));
            return;
        }
    m_distance->ask({});
    change(key, [&](GroundProfile& one) {
        alter(one.points[at]);
        distance = one.points[at].distance;
        std::stable_sort(one.points.begin(), one.points.end(), [](const Point& a, const Point& b) { return a.distance < b.distance; });
    });
    for (std::size_t i = 0; i < profile()->points.size(); ++i)
        if (profile()->points[i].distance == distance)
            m_point = i;
    refresh();
}

void GroundPanel::addBearing()
{
    const auto& all = m_context.document.design().site.profiles;
    double bearing =
        all.empty() ? m_context.document.design().operation.aimBearing.value_or(220.0) : std::fmod(bearingOfLast() + 10.0, 360.0);
    GroundProfile fresh{"", bearing, {{0.0, 0.0}, {50.0, -5.0}}, newId(), {}};
    m_profile = fresh.id, m_point = 1;
    m_context.document.edit(tr("add a bearing"), {}, [&](Design& d) { d.site.profiles.push_back(fresh); });
    emit chosen();
}

double GroundPanel::bearingOfLast() const { return m_context.document.design().site.profiles.back().bearing; }

void GroundPanel::addPoint()
{
    constexpr double farther = 50.0; // m
    if (!profile())
        return addBearing();
    change({}, [&](GroundProfile& p) {
        const Point last = p.points.empty() ? Point{} : p.points.back();
        p.points.push_back({last.distance + farther, last.height});
        m_point = p.points.size() - 1;
    });
    refresh();
}

void GroundPanel::removePoint()
{
    const Point* p = point();
    if (!p)
        return;
    const std::size_t at = std::size_t(p - profile()->points.data());
    change({}, [&](GroundProfile& one) { one.points.erase(one.points.begin() + long(at)); });
    m_point = at > 0 ? at - 1 : 0;
    refresh();
}

void GroundPanel::replaceAll(const QString& what, std::vector<GroundProfile> profiles, const std::optional<GeoPlace>& place)
{
    m_profile = profiles.empty() ? Id() : profiles.front().id;
    m_point = 0;
    m_context.document.edit(what, {}, [&](Design& d) {
        d.site.profiles = std::move(profiles);
        d.site.place = place;
    });
    emit chosen();
}

void GroundPanel::laySlope()
{
    if (!m_fall->confirm() || !m_towards->confirm() || !m_length->confirm())
        return;
    const double towards = m_towards->value();
    std::vector<GroundProfile> all = slopeLines(m_fall->value(), towards, m_length->value());
    const auto nearest = std::min_element(all.begin(), all.end(), [&](const GroundProfile& a, const GroundProfile& b) {
        return std::cos(radians(a.bearing - towards)) > std::cos(radians(b.bearing - towards));
    });
    const Id shown = nearest->id;
    replaceAll(tr("lay a slope"), std::move(all), m_context.document.design().site.place);
    m_profile = shown;
    refresh();
    emit chosen();
}

void GroundPanel::takeHeights(const QString& path)
{
    if (m_reading.isRunning())
        return;
    m_place->confirm();
    const Site& site = m_context.document.design().site;
    GroundLinesQuery query;
    query.land = site.soil;
    query.sea = seaOf(m_context.soils);
    query.reach = reach;
    m_said = tr("Reading %1 …").arg(QFileInfo(path).fileName());
    m_reading.setFuture(QtConcurrent::run([query, place = site.place, file = path.toStdString()]() mutable -> Taken {
        Taken out;
        const Result<HeightGrid> grid = files::readHeightFile(file);
        if (!grid) {
            out.faults = grid.faults();
            return out;
        }
        if (grid->inDegrees && !place) {
            out.faults = {{"", coreText("core", "say first where the antenna stands: latitude and longitude, or a grid locator")}};
            return out;
        }
        out.atMiddle = !grid->inDegrees;
        query.place = grid->inDegrees ? *place : grid->middle();
        auto lines = linesFrom(*grid, query);
        if (!lines)
            out.faults = lines.faults();
        else
            out.lines = std::move(lines).value();
        out.place = place;
        return out;
    }));
    refresh();
}

void GroundPanel::takeLines()
{
    Taken taken = m_reading.result();
    if (!taken.lines) {
        const Fault& f = taken.faults.front();
        m_said = (f.path.empty() ? QString() : QString::fromStdString(f.path) + QStringLiteral(": ")) +
                 coreWords(f.message, m_context.system()) + QLatin1Char('.');
        refresh();
        return;
    }
    const GroundLines& lines = *taken.lines;
    m_said = tr("Taken: %1 bearings, at least %2 long, %3 of them reach water; the antenna stands at %4.")
                 .arg(lines.profiles.size())
                 .arg(farWords(lines.shortest, m_context.system()))
                 .arg(lines.sea)
                 .arg(farWords(lines.footHeight, m_context.system()));
    if (taken.atMiddle)
        m_said += QLatin1Char(' ') + tr("The grid is in metres: its middle was taken as the antenna's place.");
    replaceAll(tr("take heights from a file"), std::move(taken.lines->profiles), taken.place);
    refresh();
}

QString GroundPanel::placeText() const
{
    const auto& place = m_context.document.design().site.place;
    return place ? QStringLiteral("%1, %2").arg(place->latitude, 0, 'f', 5).arg(place->longitude, 0, 'f', 5) : QString();
}

void GroundPanel::refresh()
{
    const Site& site = m_context.document.design().site;
    const GroundProfile* shown = profile();
    m_flat->setVisible(!site.profiles.empty() || !site.farGrounds.empty());
    m_flat->setChecked(site.countsAsFlat);
    m_profiles->clear();
    for (const GroundProfile& p : site.profiles)
        m_profiles->addItem(tr("%1, %n points", nullptr, int(p.points.size())).arg(towardsWords(p.bearing)), QString::fromStdString(p.id));
    if (shown)
        m_profiles->setCurrentIndex(int(shown - site.profiles.data()));
    for (QWidget* row : std::initializer_list<QWidget*>{m_profiles, m_bearing})
        m_ledger.setRowVisible(row, shown);
    m_removeBearing->setVisible(shown);
    m_removeAll->setVisible(site.profiles.size() > 1);
    m_pointButtons[1]->setVisible(shown);
    m_pointButtons[2]->setVisible(point());
    if (shown)
        m_bearing->setValue(shown->bearing, m_context.system());
    m_note->setText(site.countsAsFlat ? tr("There is ground of its own, but it is not counted now.")
                    : shown ? tr("Counts in every gain towards its bearing; between bearings up to 30° apart it is mixed, alone it "
                                 "holds 5° to either side. Ground is taken as ridges across the bearing.")
                            : tr("Flat all round, as far as nothing is said here. A hill or a cliff changes low angles by several dB."));
    m_place->setName(placeText());
    m_open->setEnabled(!m_reading.isRunning());
    if (!m_said.isEmpty())
        m_fileNote->setText(m_said);
    refreshPoint();
}

void GroundPanel::refreshPoint()
{
    const GroundProfile* shown = profile();
    const Point* p = point();
    m_points->clear();
    for (std::size_t i = 0; shown && i < shown->points.size(); ++i)
        m_points->addItem(
            tr("%1 away, %2")
                .arg(farWords(shown->points[i].distance, m_context.system()), farWords(shown->points[i].height, m_context.system())));
    for (QWidget* row : std::initializer_list<QWidget*>{m_points, m_distance, m_height, m_soil})
        m_ledger.setRowVisible(row, p);
    if (!p)
        return;
    m_points->setCurrentIndex(int(p - shown->points.data()));
    m_distance->setValue(p->distance, m_context.system());
    m_height->setValue(p->height, m_context.system());
    int kind = p->soil ? -1 : 0;
    for (std::size_t i = 0; p->soil && i < m_context.soils.size(); ++i)
        if (m_context.soils[i].relativePermittivity == p->soil->figures.relativePermittivity &&
            m_context.soils[i].conductivity == p->soil->figures.conductivity)
            kind = int(i) + 1;
    m_soil->setCurrentIndex(kind);
}

} // namespace vetchling::app
