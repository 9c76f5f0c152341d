#include "app/stages/gallery/gallery.h"

#include "app/view/words.h"
#include "app/widgets/choice.h"
#include "app/widgets/value_edit.h"
#include "core/bands/wanted.h"
#include "core/physics.h"

#include <QKeyEvent>
#include <QScrollArea>

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr int gap = 12, headingHeight = 28, groupGap = 10; // px

} // namespace

/// Cards in rows under the heading of their group, as many in a row as there is room for; a search leaves out what it does not find.
class Gallery::Grid : public QWidget {
public:
    struct Group {
        QLabel* heading;
        std::vector<GalleryCard*> cards;
    };

    explicit Grid(QWidget* parent = nullptr) : QWidget(parent) { setObjectName(QStringLiteral("galleryGrid")); }

    void clear()
    {
        for (Group& g : m_groups) {
            delete g.heading;
            qDeleteAll(g.cards);
        }
        m_groups.clear();
    }
    Group& addGroup(const QString& name, const QString& rest)
    {
        auto* heading = new QLabel(QStringLiteral("<b>%1</b> &nbsp; %2").arg(name.toHtmlEscaped(), rest.toHtmlEscaped()), this);
        heading->setProperty("role", "sentence");
        m_groups.push_back({heading, {}});
        return m_groups.back();
    }
    [[nodiscard]] GalleryCard* card(const std::string& proposal) const
    {
        for (GalleryCard* card : all(false))
            if (card->proposal() == proposal)
                return card;
        return nullptr;
    }
    [[nodiscard]] std::vector<GalleryCard*> all(bool found) const
    {
        std::vector<GalleryCard*> cards;
        for (const Group& g : m_groups)
            std::copy_if(g.cards.begin(), g.cards.end(), std::back_inserter(cards),
                         [&](GalleryCard* card) { return !found || !card->isHidden(); });
        return cards;
    }

    void search(const QStringList& words)
    {
        for (const Group& g : m_groups) {
            bool any = false;
            for (GalleryCard* card : g.cards) {
                const bool found =
                    std::all_of(words.begin(), words.end(), [&](const QString& w) { return card->searchText().contains(w); });
                card->setVisible(found);
                any = any || found;
            }
            g.heading->setVisible(any);
        }
        arrange();
        const std::vector<GalleryCard*> found = all(true);
        if (!found.empty() && std::none_of(found.begin(), found.end(), [](GalleryCard* c) { return c->focusPolicy() == Qt::StrongFocus; }))
            stopAt(found.front());
    }

    /// Tab comes to this card; the arrows go on from there.
    void stopAt(GalleryCard* stop)
    {
        for (GalleryCard* card : all(false))
            card->setFocusPolicy(card == stop ? Qt::StrongFocus : Qt::ClickFocus);
    }

    void arrange()
    {
        const int pitch = GalleryCard::cardSize.width() + gap, columns = std::max(1, (width() + gap) / pitch);
        int y = 0;
        for (const Group& g : m_groups) {
            if (g.heading->isHidden())
                continue;
            g.heading->setGeometry(0, y, width(), headingHeight);
            y += headingHeight;
            int place = 0;
            for (GalleryCard* card : g.cards) {
                if (card->isHidden())
                    continue;
                card->move((place % columns) * pitch, y + (place / columns) * (GalleryCard::cardSize.height() + gap));
                ++place;
            }
            y += ((place + columns - 1) / columns) * (GalleryCard::cardSize.height() + gap) + groupGap;
        }
        setMinimumHeight(y);
    }

    /// The nearest card in a direction from the one that has the focus.
    void step(int key)
    {
        const std::vector<GalleryCard*> cards = all(true);
        const auto from = std::find_if(cards.begin(), cards.end(), [](GalleryCard* c) { return c->hasFocus(); });
        if (cards.empty())
            return;
        if (from == cards.end()) {
            cards.front()->setFocus();
            return;
        }
        if (key == Qt::Key_Left || key == Qt::Key_Right) {
            const auto to = from - cards.begin() + (key == Qt::Key_Right ? 1 : -1);
            if (to >= 0 && to < std::ssize(cards))
                cards[std::size_t(to)]->setFocus();
            return;
        }
        GalleryCard* best = nullptr;
        const auto distance = [&](GalleryCard* c) {
            return std::abs(c->y() - (*from)->y()) * 100 + std::abs(c->x() - (*from)->x()); // the next row first, then the same column
        };
        for (GalleryCard* c : cards)
            if ((key == Qt::Key_Down ? c->y() > (*from)->y() : c->y() < (*from)->y()) && (!best || distance(c) < distance(best)))
                best = c;
        if (best)
            best->setFocus();
    }

protected:
    void resizeEvent(QResizeEvent*) override { arrange(); }

private:
    std::vector<Group> m_groups;
};

Gallery::Gallery(ViewContext& context, QWidget* parent)
    : StagePage(parent), m_context(context), m_desk(context.document, context.solver, context.shed),
      m_frequency(new ValueEdit(units::Quantity::Frequency, this)), m_filter(new QLineEdit(this)), m_want(new Choice(this)),
      m_ties(new Choice(this)), m_complaint(new QLabel(this)), m_tuner(new QPushButton(tr("Wire for a tuner"), this)), m_grid(new Grid),
      m_advisor(context.document, context.solver, context.dataFolder, context.lineTypes, this), m_which(new WhichOne(context, m_advisor))
{
    context.add(m_desk.waitings());
    context.add(m_advisor.waitings());
    setObjectName(QStringLiteral("gallery"));
    setTitle(tr("A new antenna"));
    m_frequency->setObjectName(QStringLiteral("galleryFrequency"));
    m_frequency->setAccessibleName(tr("Design frequency, or band"));
    m_frequency->setHelp(tr("a frequency, or a band by its name: 20 m"));
    m_frequency->setRange(lowestFrequency, highestFrequency);
    m_frequency->setBandCentre([this](const std::string& name) { return centreOf(m_context.document.design().operation.bands, name); });
    m_frequency->setFixedWidth(130);
    m_filter->setObjectName(QStringLiteral("galleryFilter"));
    m_filter->setAccessibleName(tr("Find"));
    m_filter->setPlaceholderText(tr("type to find: loop, 30 m, portable …"));
    m_filter->setProperty("wide", true);
    m_filter->setFixedWidth(240);
    auto* back = new QPushButton(tr("Back"), this);
    back->setObjectName(QStringLiteral("galleryBack"));
    back->setToolTip(tr("Back without a new antenna (Esc)"));
    m_tuner->setObjectName(QStringLiteral("galleryTuner"));
    m_tuner->setToolTip(tr("A wire of any length, fed at its end: the length is found for all wanted bands"));
    connect(m_tuner, &QPushButton::clicked, this, &Gallery::tunerWireWanted);
    m_want->setObjectName(QStringLiteral("galleryWant"));
    m_want->setAccessibleName(tr("What is wanted"));
    for (Want want : {Want::Any, Want::One, Want::Harmonics, Want::Several, Want::Shed})
        m_want->addItem(wantWords(want));
    connect(m_want, &QComboBox::currentIndexChanged, this, &Gallery::search);
    m_ties->setObjectName(QStringLiteral("galleryTies"));
    m_ties->setAccessibleName(tr("Tied to"));
    m_ties->setToolTip(tr("What the antennas are hung from"));
    m_ties->setMaximumWidth(190);
    connect(m_ties, &QComboBox::activated, this, [this](int row) {
        m_desk.setTies(m_tieChoices[std::size_t(row)]);
        m_desk.open(m_desk.frequency());
    });
    auto* cards = new QWidget(this);
    auto* column = new QVBoxLayout(cards);
    column->setContentsMargins(0, 0, 0, 0);
    auto* options = new QHBoxLayout;
    options->setSpacing(8);
    for (QWidget* part : std::initializer_list<QWidget*>{m_frequency, m_ties, m_want, m_tuner})
        options->addWidget(part);
    options->addStretch(1);
    options->addWidget(m_filter);
    column->addLayout(options);
    addOption(back);
    setTabOrder(m_frequency, m_ties);
    setTabOrder(m_ties, m_want);
    setTabOrder(m_want, m_tuner);
    setTabOrder(m_tuner, m_filter);
    setTabOrder(m_filter, back);
    m_complaint->setObjectName(QStringLiteral("galleryComplaint"));
    m_complaint->setProperty("role", "caution");
    m_complaint->setWordWrap(true);
    m_complaint->hide();
    column->addWidget(m_complaint);
    auto* scroll = new QScrollArea(this);
    scroll->setObjectName(QStringLiteral("galleryScroll"));
    scroll->setWidget(m_grid);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll, 1);
    m_views = new ViewButtons(*this, QStringLiteral("galleryViews"), this);
    m_views->add(tr("Gallery"), QStringLiteral("galleryCards"), cards);
    m_views->add(tr("Which one?"), QStringLiteral("galleryWhich"), m_which, tr("Which of all that could be put up here, and together"));
    connect(m_views, &ViewButtons::chosen, this, &Gallery::turn);
    connect(m_which, &WhichOne::sentenceChanged, this, [this] {
        if (asksWhich())
            setSentence(m_which->sentence());
    });
    connect(m_which, &WhichOne::hung, this, &Gallery::hung);
    connect(m_which, &WhichOne::trialChanged, this, &Gallery::trialChanged);
    connect(m_frequency, &ValueEdit::edited, this, [this](double hertz) {
        m_kept = hertz;
        m_desk.open(hertz);
    });
    connect(&m_context.document, &Document::designReplaced, this, [this] { m_kept.reset(); });
    connect(m_frequency, &ValueEdit::complained, this, [this](const QString& words) {
        m_complaint->setText(words);
        m_complaint->setVisible(!words.isEmpty());
    });
    connect(m_filter, &QLineEdit::textChanged, this, &Gallery::search);
    m_which->setFocusProxy(&m_which->table());
    connect(back, &QPushButton::clicked, this, &Gallery::left);
    connect(&m_desk, &GalleryDesk::opened, this, &Gallery::rebuild);
    connect(&m_desk, &GalleryDesk::answered, this, [this](const std::string& proposal) {
        show(proposal);
        if (proposal == m_pressed)
            take(proposal);
    });
}

Gallery::~Gallery() { m_desk.close(); }

void Gallery::open(double frequency, std::optional<View> view)
{
    m_filter->clear();
    frequency = m_kept.value_or(frequency);
    m_frequency->setValue(frequency, m_context.system());
    offerTies();
    if (view)
        m_views->showPlace(int(*view));
    else
        turn();
}

/// The cards are tuned while they are looked at; which one is looked for goes on behind.
void Gallery::turn()
{
    const bool which = asksWhich();
    setTitle(which ? tr("Which antenna for %1?").arg(QString::fromStdString(m_context.document.design().site.name)) : tr("A new antenna"));
    if (which) {
        m_pressed.clear();
        m_desk.close();
        m_which->open();
        setSentence(m_which->sentence());
        return;
    }
    emit trialChanged({});
    setSentence(tr("A place is being looked for on your site for every family …"));
    m_desk.open(m_kept.value_or(m_frequency->value()));
    m_grid->step(Qt::Key_Right);
}

void Gallery::close()
{
    emit trialChanged({});
    m_pressed.clear();
    m_desk.close();
}

void Gallery::refresh()
{
    if (asksWhich())
        return m_which->refresh();
    for (const GalleryDesk::Entry& entry : m_desk.entries())
        show(entry.proposal.id);
}

/// Three fifths of a wave fill a card's width, and the highest support its height.
double Gallery::scale() const
{
    constexpr double wide = 136.0, high = 70.0, waves = 0.62;
    const double width = wide / (waves * wavelength(m_desk.frequency()));
    const std::vector<const Support*> usable = supports();
    double highest = 0.0;
    for (const Support* s : usable)
        highest = std::max(highest, s->height);
    return highest > 0.0 ? std::min(width, high / highest) : width;
}

/// That may be hung from, as chosen.
std::vector<const Support*> Gallery::supports() const
{
    std::vector<const Support*> all;
    for (const Support& s : m_context.document.design().site.supports)
        if (m_desk.ties().empty() || std::find(m_desk.ties().begin(), m_desk.ties().end(), s.id) != m_desk.ties().end())
            all.push_back(&s);
    return all;
}

/// All supports, any two, or one alone.
void Gallery::offerTies()
{
    const auto& supports = m_context.document.design().site.supports;
    m_tieChoices = {{}};
    QStringList words{tr("on any supports")};
    for (std::size_t i = 0; i < supports.size(); ++i)
        for (std::size_t k = i + 1; k < supports.size(); ++k) {
            m_tieChoices.push_back({supports[i].id, supports[k].id});
            words << tr("on %1 and %2").arg(QString::fromStdString(supports[i].name), QString::fromStdString(supports[k].name));
        }
    for (const Support& s : supports) {
        m_tieChoices.push_back({s.id});
        words << tr("on %1 alone").arg(QString::fromStdString(s.name));
    }
    m_ties->clear();
    m_ties->addItems(words);
    m_ties->setVisible(supports.size() > 1);
    m_desk.setTies({});
}

void Gallery::rebuild()
{
    m_pressed.clear();
    QStringList named;
    for (const Support* s : supports())
        named << tr("%1 %2").arg(QString::fromStdString(s->name), heightWords(s->height, m_context.system()));
    const QString from = named.join(QStringLiteral(", "));
    m_grid->clear();
    const auto group = [&](advice::Ties ties, const QString& name, const QString& rest) {
        Grid::Group* made = nullptr;
        for (const GalleryDesk::Entry& entry : m_desk.entries()) {
            if (entry.proposal.ties != ties)
                continue;
            if (!made)
                made = &m_grid->addGroup(name, rest);
            auto* card = new GalleryCard(m_context, entry.proposal.id, m_grid);
            connect(card, &QAbstractButton::clicked, this, [this, id = entry.proposal.id] { take(id); });
            connect(card, &GalleryCard::stepped, this, [this](int key) { m_grid->step(key); });
            connect(card, &GalleryCard::typed, this, [this](const QString& text) {
                m_filter->setFocus();
                m_filter->setText(m_filter->text() + text);
            });
            connect(card, &GalleryCard::focused, this, [this, card] {
                m_grid->stopAt(card);
                if (auto* scroll = findChild<QScrollArea*>(QStringLiteral("galleryScroll")))
                    scroll->ensureWidgetVisible(card, 0, headingHeight);
            });
            made->cards.push_back(card);
        }
    };
    group(advice::Ties::TwoSupports, tr("Two supports"), tr("of %1").arg(from));
    group(advice::Ties::OneSupport, tr("One support"), tr("each from the highest that holds it where it may be"));
    group(advice::Ties::NoSupport, tr("No support"),
          !named.isEmpty() ? tr("on the ground, on a mast of their own, on a vehicle")
                           : tr("none is on the site yet; what would hang says which pole it needs"));
    QWidget* before = findChild<QPushButton*>(QStringLiteral("galleryBack"));
    for (GalleryCard* card : m_grid->all(false)) { // they are newer than what Tab would come to next
        setTabOrder(before, card);
        before = card;
    }
    refresh();
    search();
}

QString Gallery::wantWords(Want want)
{
    switch (want) {
    case Want::Any: return tr("for any bands");
    case Want::One: return tr("for one band");
    case Want::Harmonics: return tr("harmonics too");
    case Want::Several: return tr("several bands");
    case Want::Shed: return tr("from the shed");
    }
    return {};
}

void Gallery::search()
{
    QStringList words = m_filter->text().toLower().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    if (const Want want = Want(m_want->currentIndex()); want != Want::Any)
        words << wantWords(want).toLower();
    m_grid->search(words);
}

void Gallery::show(const std::string& proposal)
{
    const GalleryDesk::Entry* entry = m_desk.find(proposal);
    GalleryCard* card = m_grid->card(proposal);
    if (!entry || !card)
        return;
    const QString before = card->searchText();
    card->show(*entry, scale());
    if (!m_pressed.empty())
        return; // the sentence tells of that one
    if (card->searchText() != before && m_want->currentIndex() > 0)
        search(); // what it is found by has come with its answer
    const int left = m_desk.unanswered();
    const Operation& operation = m_context.document.design().operation;
    const bool wished = std::any_of(operation.bands.begin(), operation.bands.end(), [](const WantedBand& w) { return w.wish != Wish::No; });
    const QString squares = wished ? tr("Squares: wanted bands it serves; half full: in part.")
                                   : tr("No band is wanted yet: choose some on Bands, and squares show which of them each one serves.");
    setSentence(
        left > 0 && m_desk.givenUp() ? tr("Drawn on your supports; %n left as the rules have them. %1", nullptr, left).arg(squares)
        : left > 0
            ? tr("Drawn on your supports; %n still being tuned over your soil. %1", nullptr, left).arg(squares)
            : tr("Drawn to one scale on your supports; what may be here is tuned over your soil, the rest says why not. %1").arg(squares));
}

/// After its band where it has one: "20 m inverted V".
QString Gallery::nameOf(const GalleryDesk::Entry& entry) const
{
    const Design& design = m_context.document.design();
    const double f = m_desk.frequency();
    const WantedBand* band = findBand(design, bandFor(design, f));
    const QString title = coreWords(entry.proposal.title);
    if (!band || f < band->band.from || f > band->band.to)
        return title;
    return tr("%1 %2").arg(QString::fromStdString(band->band.name), inSentence(title));
}

void Gallery::take(const std::string& proposal)
{
    const GalleryDesk::Entry* entry = m_desk.find(proposal);
    if (!entry)
        return;
    if (entry->placed && !entry->answer && proposal != m_pressed && !m_desk.givenUp()) {
        m_pressed = proposal;
        m_told = false;
        m_desk.hurry(proposal);
        setSentence(tr("%1 is being tuned over your soil and is yours then (Esc: not).").arg(coreWords(entry->proposal.title)));
        return;
    }
    if (m_pressed == proposal && !entry->answer && !m_told) { // pressed once more it is taken as the rules have it
        m_told = true;
        setSentence(tr("%1 could not be tuned: %2. Press it again to have it with the rule's lengths.")
                        .arg(coreWords(entry->proposal.title), coreWords(entry->fault, m_context.system())));
        return;
    }
    Antenna antenna = entry->antenna();
    antenna.name = nameOf(*entry).toStdString();
    emit taken(antenna);
}

void Gallery::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Escape)
        emit left();
    else
        StagePage::keyPressEvent(event);
}

} // namespace vetchling::app
