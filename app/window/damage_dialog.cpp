#include "app/window/damage_dialog.h"

#include <QCoreApplication>
#include <QDialog>
#include <QDialogButtonBox>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <map>

namespace vetchling::app {
namespace {

struct DamageWords {
    Q_DECLARE_TR_FUNCTIONS(DamageDialog)
};

/// One thing of a list of the file.
QString thingOf(const std::string& list)
{
    static const std::map<std::string, const char*> words{{"antennas", QT_TRANSLATE_NOOP("DamageDialog", "antenna")},
                                                          {"supports", QT_TRANSLATE_NOOP("DamageDialog", "support")},
                                                          {"buildings", QT_TRANSLATE_NOOP("DamageDialog", "building")},
                                                          {"waters", QT_TRANSLATE_NOOP("DamageDialog", "water")},
                                                          {"far_grounds", QT_TRANSLATE_NOOP("DamageDialog", "far ground")},
                                                          {"bands", QT_TRANSLATE_NOOP("DamageDialog", "band")},
                                                          {"segments", QT_TRANSLATE_NOOP("DamageDialog", "segment")},
                                                          {"measurements", QT_TRANSLATE_NOOP("DamageDialog", "measurement")},
                                                          {"reports", QT_TRANSLATE_NOOP("DamageDialog", "report")},
                                                          {"copies", QT_TRANSLATE_NOOP("DamageDialog", "copy")},
                                                          {"variants", QT_TRANSLATE_NOOP("DamageDialog", "variant")},
                                                          {"named_lengths", QT_TRANSLATE_NOOP("DamageDialog", "named length")},
                                                          {"pictures", QT_TRANSLATE_NOOP("DamageDialog", "picture")},
                                                          {"chains", QT_TRANSLATE_NOOP("DamageDialog", "feed chain")},
                                                          {"parts", QT_TRANSLATE_NOOP("DamageDialog", "part")}};
    const auto known = words.find(list);
    return known == words.end() ? QString::fromStdString(list) : DamageWords::tr(known->second);
}

QString ownerWords(const FileOwner& owner)
{
    const QString name =
        owner.name.empty() ? QString::number(owner.number) : DamageWords::tr("“%1”").arg(QString::fromStdString(owner.name));
    return DamageWords::tr("%1 %2", "a thing and its name or number").arg(thingOf(owner.kind), name);
}

/// What belongs to no list and has a name of its own; empty else.
QString memberWords(const std::string& path)
{
    static const std::vector<std::pair<const char*, const char*>> words{
        {"site.power_line", QT_TRANSLATE_NOOP("DamageDialog", "the power line")},
        {"site.soil", QT_TRANSLATE_NOOP("DamageDialog", "the soil (the average one is used)")},
        {"site.boundary_m", QT_TRANSLATE_NOOP("DamageDialog", "the boundary")},
        {"site.coax_route_m", QT_TRANSLATE_NOOP("DamageDialog", "the way of the coax")},
        {"site.feed_entry_m", QT_TRANSLATE_NOOP("DamageDialog", "the place of the radio")}};
    for (const auto& [key, name] : words)
        if (path == key)
            return DamageWords::tr(name);
    return {};
}

/// What a builder must know first: what can kill, and what is missing on the shelf.
bool isGrave(const DamagedPart& part) { return part.path == "site.power_line" || (part.owners.size() == 1 && part.steps.size() == 2); }

/// The key from the thing it is in.
QString keyIn(const DamagedPart& part)
{
    const std::string& path = part.fault.path;
    const std::size_t end = part.owners.empty() ? part.path.rfind('.') : part.path.rfind(']') + 1;
    const std::size_t from = memberWords(part.path).isEmpty() || !part.owners.empty() ? end : part.path.size();
    return QString::fromStdString(from < path.size() ? path.substr(from + 1) : std::string());
}

QString placed(const QString& place, const QString& key, const QString& message)
{
    const QString what = key.isEmpty() ? message : DamageWords::tr("%1 %2", "a key of a file and what is wrong with it").arg(key, message);
    return place.isEmpty() ? what : DamageWords::tr("%1: %2").arg(place, what);
}

QString damagedWords(const DamagedPart& part)
{
    QStringList places;
    for (const FileOwner& owner : part.owners)
        places << ownerWords(owner);
    const QString key = keyIn(part), message = QString::fromStdString(part.fault.message.english());
    if (const QString member = memberWords(part.path); !member.isEmpty())
        return placed(member, key, message);
    if (places.isEmpty())
        return placed({}, QString::fromStdString(part.fault.path), message);
    return placed(places.join(QStringLiteral(", ")), key, message);
}

} // namespace

QStringList damageLines(const FileDamage& damage)
{
    QStringList lines;
    if (damage.cutShort)
        lines << DamageWords::tr("%1: %2").arg(QString::fromStdString(damage.cutShort->path),
                                               QString::fromStdString(damage.cutShort->message.english()));
    for (const bool grave : {true, false})
        for (const DamagedPart& part : damage.parts)
            if (isGrave(part) == grave)
                lines << damagedWords(part);
    for (const Fault& remark : damage.remarks)
        lines << QString::fromStdString(remark.text());
    return lines;
}

QString damageSummary(const FileDamage& damage)
{
    constexpr int shown = 2;
    const QStringList lines = damageLines(damage);
    QString words =
        damage.cutShort
            ? DamageWords::tr("The file is not whole: this is what is left of it. It will not be written over; save under another name. ")
        : damage.parts.empty() ? DamageWords::tr("Something in the file is not as it should be: ")
        : damage.parts.size() == 1
            ? DamageWords::tr("A part of the file could not be read and stays in it as it is: ")
            : DamageWords::tr("%1 parts of the file could not be read and stay in it as they are: ").arg(damage.parts.size());
    words += lines.mid(0, shown).join(QStringLiteral("; ")) + QLatin1Char('.');
    if (lines.size() > shown)
        words += QLatin1Char(' ') + DamageWords::tr("All of it is in the menu under What could not be read.");
    return words;
}

QDialog* makeDamageDialog(Document& document, QWidget* parent)
{
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("damageDialog"));
    dialog->setWindowTitle(DamageWords::tr("What could not be read"));
    dialog->resize(760, 380);
    auto* layout = new QVBoxLayout(dialog);
    layout->setContentsMargins(20, 16, 20, 16);
    auto* words = new QLabel(dialog);
    words->setWordWrap(true);
    auto* list = new QPlainTextEdit(dialog);
    list->setObjectName(QStringLiteral("damageList"));
    list->setReadOnly(true);
    list->setTabChangesFocus(true);
    const FileDamage* damage = document.damage();
    words->setText(
        !damage ? DamageWords::tr("All of this design could be read.")
        : damage->cutShort
            ? DamageWords::tr("The file ends too early. What is shown is what is left of it; the file itself stays as it is.")
            : DamageWords::tr("These parts stay in the file as they stand, and are written back when it is saved. Where a value is "
                              "missing the usual one is used. They can be mended in the file with a text editor."));
    list->setPlainText(damage ? damageLines(*damage).join(QLatin1Char('\n')) : QString());
    list->setVisible(damage);
    auto* box = new QDialogButtonBox(dialog);
    if (damage && !damage->cutShort) {
        auto* forget = box->addButton(DamageWords::tr("Drop them, keep what is shown"), QDialogButtonBox::DestructiveRole);
        forget->setObjectName(QStringLiteral("forgetDamage"));
        forget->setAutoDefault(false);
        QObject::connect(forget, &QPushButton::clicked, dialog, [dialog, &document] {
            document.forgetDamage();
            dialog->accept();
        });
    }
    auto* close = box->addButton(DamageWords::tr("Close"), QDialogButtonBox::RejectRole);
    close->setDefault(true);
    QObject::connect(box, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
    layout->addWidget(words);
    layout->addWidget(list, 1);
    layout->addWidget(box);
    return dialog;
}

} // namespace vetchling::app
