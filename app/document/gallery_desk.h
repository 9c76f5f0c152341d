#pragma once
/// The proposals of a gallery while it is open: placed at once, tuned and judged in the background, one after the other.

#include "app/document/waiting.h"
#include "core/advice/gallery.h"
#include "core/work/queue.h"

#include <QObject>

#include <map>
#include <memory>
#include <optional>

namespace vetchling::app {

class Document;
class ShedDesk;
class SolveService;

class GalleryDesk : public QObject {
    Q_OBJECT
public:
    struct Entry {
        advice::Proposal proposal;
        std::shared_ptr<const shapes::BuiltAntenna> placed; ///< by its rule's lengths; null if it cannot be built
        std::optional<advice::Proposed> answer;
        bool fromShed = false; ///< nothing of it is missing there, but for the feed line
        Text fault;            ///< why there is no answer, once it is known
        [[nodiscard]] bool done() const { return answer.has_value() || !fault.empty(); }
        /// The antenna as far as it is known.
        [[nodiscard]] const Antenna& antenna() const { return answer ? answer->antenna : proposal.antenna; }
        [[nodiscard]] const advice::Place& place() const { return answer ? answer->place : proposal.place; }
        /// Null where it could not be placed.
        [[nodiscard]] const shapes::BuiltAntenna* built() const { return answer ? answer->built.get() : placed.get(); }
    };

    GalleryDesk(Document& document, SolveService& solver, const ShedDesk& shed, QObject* parent = nullptr);

    /// Starts over for a frequency; what was under way is told to stop.
    void open(double frequency);
    void close();
    /// The supports that antennas may be hung from, by their ids; none: all. Takes effect when opened.
    void setTies(std::vector<Id> supports) { m_ties = std::move(supports); }
    [[nodiscard]] const std::vector<Id>& ties() const { return m_ties; }
    [[nodiscard]] double frequency() const { return m_frequency; }
    /// In the order they are offered.
    [[nodiscard]] const std::vector<Entry>& entries() const { return m_entries; }
    /// Null if there is none of that id.
    [[nodiscard]] const Entry* find(const std::string& id) const;
    [[nodiscard]] int unanswered() const;
    /// The rest was left as it is placed.
    [[nodiscard]] bool givenUp() const { return m_givenUp; }

    /// One is wanted now: the others are no longer looked into.
    void hurry(const std::string& id);

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void opened();
    void answered(const std::string& id);

private:
    [[nodiscard]] bool isFromShed(const Entry& entry) const;
    [[nodiscard]] Waiting waiting();
    void startUnanswered();
    void cancelAll();
    void start(const advice::Proposal& proposal);
    void take(unsigned long round, const std::string& id, const Result<advice::Proposed>& answer);

    Document& m_document;
    SolveService& m_solver;
    const ShedDesk& m_shed;
    std::vector<Id> m_ties;
    double m_frequency = 0.0;
    std::vector<Entry> m_entries;
    std::map<std::string, work::Queue::Ticket> m_jobs; ///< by proposal
    unsigned long m_round = 0;                         ///< answers of an earlier one are dropped
    bool m_givenUp = false;
};

} // namespace vetchling::app
