<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** Opens a file with the reader of its format, found from its beginning. A new format is a reader and a line here. */
final readonly class ReaderCatalogue
{
    private const SAMPLE_BYTES = 4_096;

    public function __construct(private int $rowLimit = DelimitedReader::ROW_LIMIT) {}

    /**
     * @param  string  $name  the file as the person knows it, for messages
     * @param  string|null  $delimiter  by name, instead of the one that is found
     *
     * @throws NotUsable
     */
    public function open(string $path, string $name, ?string $delimiter = null): Reader
    {
        $stream = ByteStream::open($path, $name);
        $beginning = $stream->read(self::SAMPLE_BYTES);
        $stream->close();
        $isLines = $delimiter === null ? JsonReader::recognises($beginning) : null;

        return $isLines === null
            ? new DelimitedReader($path, $name, (new FormatDetection)->find($path, $name)->format->with(delimiterName: $delimiter), $this->rowLimit)
            : new JsonReader($path, $name, $isLines, $this->rowLimit);
    }
}
