#include "core/em/terrain_cache.h"

#include "core/em/terrain_mesh.h"

#include <oneapi/tbb/parallel_for.h>
#include <oneapi/tbb/task_arena.h>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <list>
#include <mutex>

namespace vetchling::em {
namespace {

constexpr double perWave = 10.0;           // heights a wavelength
constexpr std::size_t stencil = 6;         // of them, for what lies between
constexpr std::size_t mostKept = 3u << 26; // bytes of all together
constexpr double frequencyStep = 0.005;    // of itself: nearer ones share a solution, each with its own phases
constexpr std::size_t mostRetuned = 6;     // of a line
constexpr std::size_t mostAngles = 400;    // of a line whose responses are kept

double solvedFrequency(double frequency) { return std::exp(std::round(std::log(frequency) / frequencyStep) * frequencyStep); }

/// Closer near the ground, where fields change fast. More of them cost little: so most antennas of a band share them.
std::vector<double> heightsUpTo(double highest, double frequency)
{
    constexpr std::size_t close = 4, atOnce = 10;
    const double step = wavelength(frequency) / perWave;
    std::vector<double> all;
    for (std::size_t i = 0; i < close; ++i)
        all.push_back((double(i) + 0.5) * 0.5 * step);
    do
        for (std::size_t i = 0; i < atOnce; ++i)
            all.push_back((double(all.size() - close) + 2.5) * step);
    while (all.back() < highest);
    return all;
}

/// Without its farthest corners where there are too many for an answer while one waits.
TerrainProfile manageable(TerrainProfile profile, double frequency, double lowest)
{
    constexpr std::size_t mostNodes = 4000;
    while (profile.corners.size() > 1 && TerrainMesh(profile, frequency, lowest).nodes.size() > mostNodes) {
        if (profile.corners.back().x > -profile.corners.front().x) {
            profile.corners.pop_back();
            profile.soils.pop_back();
        } else {
            profile.corners.erase(profile.corners.begin());
            profile.soils.erase(profile.soils.begin());
        }
    }
    return profile;
}

/// Of the whole program.
class Keeping {
public:
    static Keeping& one()
    {
        static Keeping keeping;
        return keeping;
    }
    void set(std::shared_ptr<TerrainKeeper> keeper)
    {
        const std::scoped_lock lock(m_mutex);
        m_keeper = std::move(keeper);
    }
    [[nodiscard]] std::shared_ptr<TerrainKeeper> keeper()
    {
        const std::scoped_lock lock(m_mutex);
        return m_keeper;
    }

private:
    std::mutex m_mutex;
    std::shared_ptr<TerrainKeeper> m_keeper;
};

/// One profile, frequency and range of heights, solved by whoever asks first.
class Kept {
public:
    Kept(TerrainProfile profile, double frequency, std::vector<double> heights) : m_line{std::move(profile), frequency, std::move(heights)}
    {
    }
    std::atomic<std::size_t> bytes = 0;

    /// As this one, or with more heights of the same kind.
    [[nodiscard]] bool serves(const TerrainProfile& profile, double frequency, const std::vector<double>& heights) const
    {
        return m_line.frequency == frequency && m_line.heights.size() >= heights.size() && m_line.heights.front() == heights.front() &&
               m_line.profile == profile;
    }

    /// Once it is solved; nothing where it cannot be.
    [[nodiscard]] std::shared_ptr<const TerrainHeights> at(double frequency)
    {
        const std::scoped_lock lock(m_mutex);
        if (!m_field)
            return nullptr;
        const auto known = std::find_if(m_retuned.begin(), m_retuned.end(), [&](const auto& r) { return r->frequency() == frequency; });
        if (known != m_retuned.end())
            m_retuned.splice(m_retuned.begin(), m_retuned, known);
        else
            m_retuned.push_front(std::make_shared<const TerrainHeights>(m_field->retuned(m_solved.profile, frequency),
                                                                        m_line.profile.soilAt(0.0), frequency));
        if (m_retuned.size() > mostRetuned)
            m_retuned.pop_back();
        bytes = m_field->unknowns() * m_line.heights.size() * 6 * sizeof(std::complex<float>);
        return m_retuned.front();
    }

    /// By whoever comes first; others wait. @return false: stopped, and for the next one to solve
    bool solve(const Watch& watch)
    {
        const std::scoped_lock lock(m_solving);
        if (!m_isDone)
            oneapi::tbb::this_task_arena::isolate(
                [&] { m_isDone = solveNow(watch); }); // no other work of this thread may wait for this one
        return m_isDone;
    }

private:
    bool solveNow(const Watch& watch)
    {
        m_solved = {manageable(m_line.profile, m_line.frequency, m_line.heights.front()), m_line.frequency, m_line.heights};
        const std::shared_ptr<TerrainKeeper> keeper = Keeping::one().keeper();
        TerrainSurface surface = keeper ? surfaceOf(m_solved.profile, m_solved.frequency, m_solved.heights) : TerrainSurface();
        if (keeper && keeper->restore(m_solved, surface)) {
            take(TerrainField(std::move(surface)));
            return true;
        }
        Result<TerrainField> field = TerrainField::solve(m_solved.profile, m_solved.frequency, m_solved.heights, watch);
        if (field.stopped())
            return false;
        if (!field)
            return true;
        if (keeper)
            keeper->keep(m_solved, field->surface());
        take(std::move(field).value());
        return true;
    }

    void take(TerrainField field)
    {
        const std::scoped_lock lock(m_mutex);
        m_field = std::move(field);
    }

    TerrainLine m_line, m_solved;        ///< as it was asked for; without corners too far off
    std::optional<TerrainField> m_field; ///< nothing: it cannot be solved
    bool m_isDone = false;
    std::mutex m_solving, m_mutex;                              ///< of its solution; of what comes of it
    std::list<std::shared_ptr<const TerrainHeights>> m_retuned; ///< the one asked for last comes first
};

std::shared_ptr<Kept> keptFor(const TerrainProfile& profile, double frequency, const std::vector<double>& heights)
{
    static std::mutex mutex;
    static std::list<std::shared_ptr<Kept>> all; // the one asked for last comes first
    const std::scoped_lock lock(mutex);
    const auto found = std::find_if(all.begin(), all.end(), [&](const auto& k) { return k->serves(profile, frequency, heights); });
    if (found != all.end())
        all.splice(all.begin(), all, found);
    else
        all.push_front(std::make_shared<Kept>(profile, frequency, heights));
    std::size_t bytes = 0;
    for (const auto& k : all)
        bytes += k->bytes;
    for (; bytes > mostKept && all.size() > 1; all.pop_back())
        bytes -= std::min<std::size_t>(bytes, all.back()->bytes);
    return all.front();
}

/// As one sees it against the bearing.
TerrainProfile turned(const TerrainProfile& profile)
{
    TerrainProfile out;
    for (auto p = profile.corners.rbegin(); p != profile.corners.rend(); ++p)
        out.corners.push_back({-p->x, p->z});
    out.soils.assign(profile.soils.rbegin(), profile.soils.rend());
    return out;
}

/// Of a line's two ways always the same one is solved. Where a wall stands at the foot, only one of them has the foot on top.
bool isTurned(const TerrainProfile& profile)
{
    const auto& c = profile.corners;
    if (std::count_if(c.begin(), c.end(), [](const ProfilePoint& p) { return p.x == 0.0; }) > 1)
        return false;
    for (std::size_t i = 0; i < c.size(); ++i) {
        const ProfilePoint& other = c[c.size() - 1 - i];
        if (c[i].x != -other.x)
            return c[i].x > -other.x;
        if (c[i].z != other.z)
            return c[i].z > other.z;
    }
    return false;
}

TerrainResponse operator-(const TerrainResponse& a, const TerrainResponse& b)
{
    return {a.across - b.across, a.along - b.along, a.vertical - b.vertical};
}

} // namespace

void TerrainHeights::keepWith(std::shared_ptr<TerrainKeeper> keeper) { Keeping::one().set(std::move(keeper)); }

std::optional<TerrainView> TerrainHeights::over(const TerrainProfile& profile, double frequency, double highest, const Watch& watch)
{
    if (!findFaults(profile).empty())
        return std::nullopt;
    const Side side = isTurned(profile) ? Side::Against : Side::Along;
    const TerrainProfile line = side == Side::Along ? profile : turned(profile);
    const double near = solvedFrequency(frequency);
    const std::shared_ptr<Kept> kept = keptFor(line, near, heightsUpTo(highest, near));
    if (!kept->solve(watch))
        return std::nullopt;
    const std::shared_ptr<const TerrainHeights> here = kept->at(frequency);
    return here ? std::optional(TerrainView{here, side}) : std::nullopt;
}

void TerrainHeights::prepare(const std::vector<TerrainProfile>& profiles, double frequency, double highest, const Watch& watch)
{
    std::vector<TerrainProfile> lines; // each once: a thread that waits for another's does nothing
    for (const TerrainProfile& p : profiles)
        if (TerrainProfile line = isTurned(p) ? turned(p) : p; std::find(lines.begin(), lines.end(), line) == lines.end())
            lines.push_back(std::move(line));
    oneapi::tbb::parallel_for(std::size_t(0), lines.size(), [&](std::size_t i) { (void)over(lines[i], frequency, highest, watch); });
}

std::vector<TerrainResponse> TerrainView::at(const std::vector<double>& heights, double elevation) const
{
    return line->at(heights, side, elevation);
}

std::vector<TerrainResponse> TerrainHeights::restOf(Side side, double elevation) const
{
    const std::pair key(side, elevation);
    {
        const std::scoped_lock lock(m_mutex);
        if (const auto known = m_rests.find(key); known != m_rests.end())
            return known->second;
    }
    std::vector<TerrainResponse> rest = m_field.responses(side, elevation);
    for (std::size_t i = 0; i < rest.size(); ++i)
        rest[i] = rest[i] - flatResponse(m_own, m_frequency, m_field.heights()[i], elevation);
    const std::scoped_lock lock(m_mutex);
    if (m_rests.size() >= mostAngles)
        m_rests.clear();
    return m_rests.emplace(key, std::move(rest)).first->second;
}

/// What differs from the flat ground of the foot is smooth over the height.
std::vector<TerrainResponse> TerrainHeights::at(const std::vector<double>& heights, Side side, double elevation) const
{
    const std::vector<double>& grid = m_field.heights();
    const std::vector<TerrainResponse> rest = restOf(side, elevation);
    std::vector<TerrainResponse> all;
    all.reserve(heights.size());
    for (double h : heights) {
        const std::size_t above = std::size_t(std::lower_bound(grid.begin(), grid.end(), h) - grid.begin());
        const std::size_t first = std::min(above > 3 ? above - 3 : 0, grid.size() - stencil);
        TerrainResponse r = flatResponse(m_own, m_frequency, h, elevation);
        for (std::size_t i = first; i < first + stencil; ++i) {
            double weight = 1.0;
            for (std::size_t j = first; j < first + stencil; ++j)
                if (j != i)
                    weight *= (h - grid[j]) / (grid[i] - grid[j]);
            r.across += weight * rest[i].across;
            r.along += weight * rest[i].along;
            r.vertical += weight * rest[i].vertical;
        }
        all.push_back(r);
    }
    return all;
}

} // namespace vetchling::em
