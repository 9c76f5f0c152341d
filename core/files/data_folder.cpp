#include "core/files/data_folder.h"

#include <filesystem>

namespace vetchling::files {

std::string findDataFolder()
{
    namespace fs = std::filesystem;
    std::error_code error;
    const fs::path program = fs::read_symlink("/proc/self/exe", error).parent_path();
    for (const fs::path& folder : {program / "../share/vetchling", program / "data"})
        if (fs::exists(folder / "soils.json", error))
            return fs::canonical(folder, error).string();
    return VETCHLING_SOURCE_DATA;
}

} // namespace vetchling::files
