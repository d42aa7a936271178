<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Value\Reading;

/** How the reading of both sides is divided into tasks: decided once by whoever asks first, and written down for all workers. */
final class WorkDivision
{
    private ?bool $readsSideBySide = null;

    /** @var array<string, list<ByteRange>> */
    private array $ranges = [];

    /** @param Sides<Reader> $readers */
    public function __construct(
        private readonly Sides $readers,
        private readonly TallyParts $parts,
        private readonly string $workspace,
        private readonly TallySettings $settings,
    ) {}

    public function readsSideBySide(): bool
    {
        if ($this->readsSideBySide !== null) {
            return $this->readsSideBySide;
        }
        [$yes, $no] = ["{$this->workspace}/side-by-side", "{$this->workspace}/one-after-the-other"];
        if (! is_file($yes) && ! is_file($no)) {
            AtomicFile::put($this->parts->couldBeReadSideBySide() && $this->parts->sideBySideScan()->isWorthwhile() ? $yes : $no, '');
        }

        return $this->readsSideBySide = is_file($yes);
    }

    /** @return list<ByteRange> */
    public function rangesOf(Side $side): array
    {
        // Another worker may have found stray quotes meanwhile.
        return is_file("{$this->workspace}/{$side->value}.in-one") || $this->readsSideBySide()
            ? [new ByteRange]
            : ($this->ranges[$side->value] ??= $this->keptRanges($side));
    }

    /**
     * A file is looked through once to divide it, by whoever comes first.
     *
     * @return list<ByteRange>
     */
    private function keptRanges(Side $side): array
    {
        $path = "{$this->workspace}/{$side->value}.ranges";
        if (! is_file($path)) {
            AtomicFile::put($path, serialize($this->readers->of($side)->ranges($this->settings->rangeBytes)));
        }
        /** @var list<ByteRange> $ranges */
        $ranges = unserialize((string) file_get_contents($path), ['allowed_classes' => [ByteRange::class]]);

        return $ranges;
    }
}
