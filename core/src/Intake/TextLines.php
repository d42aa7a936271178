<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Intake\Delimited\LineEnds;

/** The lines of a text file, one at a time, as UTF-8. Holds a block and a line. */
final readonly class TextLines
{
    private const BLOCK_BYTES = 131_072;

    /**
     * @param  int  $markBytes  of the byte-order mark
     * @param  int  $rowLimit  bytes; of a longer line only its number is given
     */
    public function __construct(
        private string $path,
        private string $name,
        private int $rowLimit,
        private Encoding $encoding = Encoding::Utf8,
        private int $markBytes = 0,
    ) {}

    /**
     * @param  (callable(int): void)|null  $onBytes
     * @return \Generator<int, string|null> number of the line, from 1 => the line without its end; null: longer than the row limit
     *
     * @throws UnreadableFile
     */
    public function read(?callable $onBytes = null): \Generator
    {
        $number = 0;
        $rest = '';
        $isTooLong = false;
        foreach ($this->blocks($onBytes) as $block) {
            [$lines, $rest] = LineEnds::split($rest.$block, false);
            foreach ($lines as [$line]) {
                yield ++$number => $isTooLong || strlen($line) > $this->rowLimit ? null : $line;
                $isTooLong = false;
            }
            if (strlen($rest) > $this->rowLimit) {
                [$isTooLong, $rest] = [true, ''];
            }
        }
        if ($isTooLong || $rest !== '') {
            yield ++$number => $isTooLong ? null : (str_ends_with($rest, "\r") ? substr($rest, 0, -1) : $rest);
        }
    }

    /** @return \Generator<int, string> UTF-8 */
    private function blocks(?callable $onBytes): \Generator
    {
        $stream = ByteStream::open($this->path, $this->name);
        $markLeft = $this->markBytes;
        $open = '';
        try {
            while (($block = $stream->read(self::BLOCK_BYTES)) !== '') {
                $block = $open.substr($block, $markLeft);
                $markLeft = 0;
                $kept = strlen($block) - $this->encoding->openAtEnd($block);
                $open = substr($block, $kept);
                yield $this->encoding->decode(substr($block, 0, $kept));
                $onBytes === null || $onBytes($stream->position());
            }
            if ($open !== '') {
                yield "\xFF";
            }
        } finally {
            $stream->close();
        }
    }
}
