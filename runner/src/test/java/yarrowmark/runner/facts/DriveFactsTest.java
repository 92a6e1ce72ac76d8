package yarrowmark.runner.facts;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DriveFactsTest {
    @TempDir
    private Path root;

    private void put(String file, String words) throws IOException {
        Path at = root.resolve(file);
        Files.createDirectories(at.getParent());
        Files.writeString(at, words + "\n");
    }

    private void link(String name, String to) throws IOException {
        Path at = root.resolve("sys/class/block").resolve(name);
        Files.createDirectories(at.getParent());
        Files.createSymbolicLink(at, root.resolve(to));
    }

    private void nvme() throws IOException {
        String disk = "sys/devices/pci0000:00/0000:01:00.0/nvme/nvme7/nvme7n1/";
        put(disk + "size", "1953525168");
        put(disk + "queue/rotational", "0");
        put(disk + "device/model", "Larkfield NV 1000   ");
        put(disk + "device/firmware_rev", "1B2Q");
        put(disk + "device/serial", "S-000451");
        put(disk + "device/device/current_link_speed", "16.0 GT/s PCIe");
        put(disk + "device/device/current_link_width", "4");
        put(disk + "nvme7n1p2/partition", "2");
        link("nvme7n1p2", disk + "nvme7n1p2");
    }

    @Test
    void aPartOfADriveIsOfTheWholeOne() throws IOException {
        nvme();
        Map<String, String> facts = new DriveFacts(root).read("/dev/nvme7n1p2", false);
        assertThat(facts)
                .containsEntry("storage.model", "Larkfield NV 1000")
                .containsEntry("storage.size", String.valueOf(1953525168L * 512))
                .containsEntry("storage.interface", "NVMe")
                .containsEntry("storage.kind", "solid state")
                .containsEntry("storage.lanes", "4")
                .containsEntry("storage.generation", "4")
                .containsEntry("storage.firmware", "1B2Q")
                .doesNotContainKeys("storage.serial", "storage.encrypted", "storage.health");
        assertThat(new DriveFacts(root).read("/dev/nvme7n1p2", true)).containsEntry("storage.serial", "S-000451");
    }

    @Test
    void anEncryptedOneStandsOnItsDriveAndSaysSo() throws IOException {
        nvme();
        String mapped = "sys/devices/virtual/block/dm-9/";
        put(mapped + "dm/uuid", "CRYPT-LUKS2-0451-home");
        Files.createDirectories(root.resolve(mapped + "slaves"));
        Files.createSymbolicLink(root.resolve(mapped + "slaves/nvme7n1p2"), root.resolve("sys/class/block/nvme7n1p2"));
        link("dm-9", mapped);
        assertThat(new DriveFacts(root).read("/dev/dm-9", false))
                .containsEntry("storage.encrypted", "yes")
                .containsEntry("storage.model", "Larkfield NV 1000");
    }

    @Test
    void whatAVirtualDriveIsMadeOfIsNotGuessedAndAnUnknownOneIsNothing() throws IOException {
        put("sys/devices/pci0000:00/virtio2/block/vdz/queue/rotational", "1");
        link("vdz", "sys/devices/pci0000:00/virtio2/block/vdz");
        assertThat(new DriveFacts(root).read("/dev/vdz", false))
                .containsExactly(Map.entry("storage.interface", "virtual"));
        assertThat(new DriveFacts(root).read("/dev/no-such", false)).isEmpty();
    }

    @Test
    void healthIsAWordOrNothing() {
        assertThat(DriveFacts.said("{\"smart_status\":{\"passed\":true}}")).isEqualTo("good");
        assertThat(DriveFacts.said("{\"smart_status\":{\"passed\":false}}")).isEqualTo("failing");
        assertThat(DriveFacts.said("{\"smartctl\":{\"exit_status\":2}}")).isEmpty();
        assertThat(DriveFacts.said("not there")).isEmpty();
    }
}
