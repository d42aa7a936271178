<?php

declare(strict_types=1);

namespace NineTally\Core\Ruling;

/** Some findings of a block, by their places in it. */
final readonly class BlockMembers
{
    /** @param string $places a byte for each, from 0, in rising order */
    private function __construct(public string $places) {}

    /** @param string $bytes a byte for each place, in any order, also twice */
    public static function at(string $bytes): self
    {
        $places = count_chars($bytes, 3);
        if ($places !== '' && ord($places[-1]) >= EffectiveRulingBlock::FINDINGS) {
            throw new \OutOfRangeException('A block has no such place.');
        }

        return new self($places);
    }

    /** @param int $findings the first so many of the block; more are all of it */
    public static function first(int $findings): self
    {
        return new self(substr(implode('', array_map(chr(...), range(0, EffectiveRulingBlock::FINDINGS - 1))), 0, $findings));
    }

    /** @param string $flags a byte for each finding of the block, in their order: 1 for a member, else 0 */
    public static function flagged(string $flags): self
    {
        return self::at(pack('C*', ...array_keys(str_split($flags), "\1", true)));
    }

    public function count(): int
    {
        return strlen($this->places);
    }

    /** @return string a byte for each finding of the block: all bits set for a member, none for another */
    public function mask(): string
    {
        $mask = str_repeat("\0", EffectiveRulingBlock::FINDINGS);
        for ($place = 0; $place < strlen($this->places); $place++) {
            $mask[ord($this->places[$place])] = "\xFF";
        }

        return $mask;
    }
}
