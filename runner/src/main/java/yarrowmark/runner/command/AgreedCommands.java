package yarrowmark.runner.command;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import yarrowmark.runner.protocol.Api;

/** Which commands the owner of this device agreed to: those alone, to the letter. */
public final class AgreedCommands {
    private final Path file;
    private final Set<String> hashes;

    /** @param folder where the runner keeps its state */
    public AgreedCommands(Path folder) {
        this.file = folder.resolve("agreed-commands");
        try {
            this.hashes = Files.exists(file) ? new HashSet<>(Files.readAllLines(file)) : new HashSet<>();
        } catch (IOException e) {
            throw new UncheckedIOException("What was agreed to cannot be read from " + file + ".", e);
        }
    }

    public boolean to(Api.TimedCommand command) {
        return hashes.contains(CommandWords.hash(command));
    }

    public void agree(Collection<Api.TimedCommand> commands) {
        StringBuilder fresh = new StringBuilder();
        for (Api.TimedCommand command : commands) {
            String hash = CommandWords.hash(command);
            if (hashes.add(hash)) {
                fresh.append(hash).append('\n');
            }
        }
        try (FileChannel channel = FileChannel.open(
                file, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.APPEND)) {
            channel.write(ByteBuffer.wrap(fresh.toString().getBytes(StandardCharsets.US_ASCII)));
            channel.force(true);
        } catch (IOException e) {
            throw new UncheckedIOException("What was agreed to cannot be kept in " + file + ".", e);
        }
    }
}
