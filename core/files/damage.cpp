#include "core/files/damage.h"

#include <algorithm>
#include <unordered_map>

namespace vetchling::files {
namespace {

constexpr const char* setAside = "set_aside";

std::string textOf(const Json& json) { return json.dump(-1, ' ', false, Json::error_handler_t::replace); }

std::string textAt(const Json& json, const char* key)
{
    const auto found = json.is_object() ? json.find(key) : json.end();
    return json.is_object() && found != json.end() && found->is_string() ? found->get<std::string>() : std::string();
}

/// Follows the file and what is written of it side by side.
class Finder {
public:
    explicit Finder(const std::vector<Unread>& unread)
    {
        for (const Unread& u : unread)
            if (u.value)
                m_unread.try_emplace(u.value, &u.fault);
    }

    std::vector<DamagedPart> find(const Json& file, const Json& written)
    {
        visit(file, &written);
        return std::move(m_found);
    }

private:
    void visit(const Json& at, const Json* written)
    {
        if (const auto unread = m_unread.find(&at); unread != m_unread.end()) {
            m_found.push_back({m_path, m_owners, *unread->second, m_steps, textOf(at), written ? textOf(*written) : std::string()});
            return;
        }
        if (at.is_object())
            visitMembers(at, written);
        else if (at.is_array())
            visitItems(at, written);
    }

    void visitMembers(const Json& at, const Json* written)
    {
        for (const auto& [key, value] : at.items()) {
            const bool has = written && written->is_object() && written->contains(key);
            const std::string path = std::exchange(m_path, m_path.empty() ? key : m_path + "." + key);
            m_steps.push_back({key, {}, 0, has});
            visit(value, has ? &(*written)[key] : nullptr);
            m_steps.pop_back();
            m_path = path;
        }
    }

    void visitItems(const Json& at, const Json* written)
    {
        const auto item = [&](std::size_t i) { return written && written->is_array() && i < written->size() ? &(*written)[i] : nullptr; };
        const std::string list = m_steps.empty() ? std::string() : m_steps.back().key;
        std::size_t read = 0;
        for (std::size_t i = 0; i < at.size(); ++i) {
            const bool lost = m_unread.contains(&at[i]);
            const Json* own = lost ? nullptr : item(read);
            const Json* known = lost ? (read > 0 ? item(read - 1) : nullptr) : own;
            const std::string path = std::exchange(m_path, m_path + "[" + std::to_string(i) + "]");
            m_steps.push_back({{}, known ? textAt(*known, "id") : Id(), read, own != nullptr});
            if (at[i].is_object() || lost)
                m_owners.push_back({list, textAt(at[i], "name"), textAt(at[i], "id"), i + 1});
            visit(at[i], own);
            if (at[i].is_object() || lost)
                m_owners.pop_back();
            m_steps.pop_back();
            m_path = path;
            read += lost ? 0 : 1;
        }
    }

    std::unordered_map<const Json*, const Fault*> m_unread;
    std::vector<DamagedPart> m_found;
    std::vector<FileStep> m_steps;
    std::vector<FileOwner> m_owners;
    std::string m_path;
};

std::optional<std::size_t> placeOf(const Json& list, const FileStep& step)
{
    if (step.id.empty())
        return step.place < list.size() ? std::optional(step.place) : std::nullopt;
    for (std::size_t i = 0; i < list.size(); ++i)
        if (textAt(list[i], "id") == step.id)
            return i;
    return std::nullopt;
}

/// The value that the last step starts from; null where it was removed.
Json* holderOf(Json& design, const std::vector<FileStep>& steps)
{
    Json* at = &design;
    for (std::size_t i = 0; i + 1 < steps.size(); ++i) {
        const FileStep& step = steps[i];
        if (step.key.empty()) {
            const auto place = at->is_array() ? placeOf(*at, step) : std::nullopt;
            if (!place)
                return nullptr;
            at = &(*at)[*place];
        } else {
            if (!at->is_object() || (step.written && !at->contains(step.key)))
                return nullptr;
            if (!at->contains(step.key))
                (*at)[step.key] = steps[i + 1].key.empty() ? Json::array() : Json::object();
            at = &(*at)[step.key];
        }
    }
    return at;
}

void putMemberBack(Json& design, const DamagedPart& part)
{
    Json* holder = holderOf(design, part.steps);
    if (!holder || !holder->is_object())
        return;
    const std::string& key = part.steps.back().key;
    const Json asItStood = Json::parse(part.asItStood, nullptr, false);
    if ((holder->contains(key) ? textOf((*holder)[key]) : std::string()) == part.standIn)
        (*holder)[key] = asItStood;
    else
        design[setAside].push_back({{"where", part.path}, {"was", asItStood}});
}

void putItemBack(Json& design, const DamagedPart& part)
{
    Json* list = holderOf(design, part.steps);
    if (!list || !list->is_array())
        return;
    const FileStep& step = part.steps.back();
    const auto before = step.id.empty() ? std::nullopt : placeOf(*list, step);
    const std::size_t place = std::min(before ? *before + 1 : step.place, list->size());
    list->insert(list->begin() + std::ptrdiff_t(place), Json::parse(part.asItStood, nullptr, false));
}

} // namespace

std::vector<DamagedPart> damagedParts(const Json& file, const std::vector<Unread>& unread, const Json& written)
{
    return Finder(unread).find(file, written);
}

void putBack(Json& design, const std::vector<DamagedPart>& parts)
{
    for (const DamagedPart& part : parts)
        if (!part.steps.empty() && !part.steps.back().key.empty())
            putMemberBack(design, part);
    for (auto part = parts.rbegin(); part != parts.rend(); ++part) // from behind, so that those of one place keep their order
        if (!part->steps.empty() && part->steps.back().key.empty())
            putItemBack(design, *part);
}

} // namespace vetchling::files
