<?php

declare(strict_types=1);

namespace NineTally\Core\Ruling;

/**
 * Which act of ruling stands for each finding of a block. The findings of a group (the cells of a pattern, or the rows of a class) are
 * numbered, and so many of them in their order are a block: the newest act that covers a finding stands for it.
 *
 * People rule on thousands at once, so most blocks know one act. A byte says for each finding which of the block's acts it is; an act is
 * laid over all of them by a few operations on whole strings.
 */
final readonly class EffectiveRulingBlock
{
    /**
     * As every finding may have an act of its own, and one more is laid over them before those that have ended are dropped: all in a byte.
     */
    public const FINDINGS = 240;

    /**
     * @param  list<int>  $acts  that stand for at least one finding, in the order in which they were laid
     * @param  list<string>  $decisions  of these acts
     * @param  string  $marks  a byte for each finding: the place of its act, from 1, or 0 where none stands
     */
    private function __construct(public array $acts, public array $decisions, public string $marks) {}

    public static function undecided(): self
    {
        return new self([], [], str_repeat("\0", self::FINDINGS));
    }

    /**
     * A block as it was kept.
     *
     * @param  list<int>  $acts
     * @param  list<string>  $decisions
     */
    public static function kept(array $acts, array $decisions, string $marks): self
    {
        if (
            strlen($marks) !== self::FINDINGS ||
            count($acts) !== count($decisions) ||
            strspn($marks, self::marksOf($acts)) !== self::FINDINGS
        ) {
            throw new \UnexpectedValueException(
                'A block of standings is damaged: its marks do not fit its acts. Make the standings of the tally again.',
            );
        }

        return new self($acts, $decisions, $marks);
    }

    /** With one more act, which is newer than all that stand. */
    public function ruled(int $act, string $decision, BlockMembers $members): self
    {
        $mask = $members->mask();
        $mark = str_repeat(chr(count($this->acts) + 1), self::FINDINGS);

        return self::withoutEnded([...$this->acts, $act], [...$this->decisions, $decision], $this->marks & ~$mask | $mark & $mask);
    }

    public function isUndecided(): bool
    {
        return $this->acts === [];
    }

    /** @return array<int, int> findings by the act that stands for them */
    public function findingsByAct(): array
    {
        return $this->findingsBy($this->acts);
    }

    /** @return array<string, int> findings by what was decided on them */
    public function findingsByDecision(): array
    {
        return $this->findingsBy($this->decisions);
    }

    /**
     * @param  array<string, int>  $codes  of all decisions, each a byte; what no act stands for has 0
     * @return string a byte for each finding
     */
    public function decided(array $codes): string
    {
        return strtr(
            $this->marks,
            self::marksOf($this->acts),
            "\0".implode('', array_map(static fn(string $decision): string => chr($codes[$decision]), $this->decisions)),
        );
    }

    /**
     * @param  \Closure(int, string): bool  $isMeant  told an act and its decision
     * @param  bool  $isNoneMeant  whether a finding is meant that no act stands for
     * @return string a byte for each finding: 1 where it is meant, else 0
     */
    public function meant(\Closure $isMeant, bool $isNoneMeant): string
    {
        $flags = array_map(
            static fn(int $act, string $decision): string => $isMeant($act, $decision) ? "\1" : "\0",
            $this->acts,
            $this->decisions,
        );

        return strtr($this->marks, self::marksOf($this->acts), ($isNoneMeant ? "\1" : "\0").implode('', $flags));
    }

    /**
     * @param  list<int>  $acts
     * @return string every byte that may stand for a finding
     */
    private static function marksOf(array $acts): string
    {
        return pack('C*', ...range(0, count($acts)));
    }

    /**
     * @template Name of int|string
     *
     * @param  list<Name>  $names  of the acts, by their places
     * @return array<Name, int>
     */
    private function findingsBy(array $names): array
    {
        $findings = [];
        foreach (count_chars($this->marks, 1) as $mark => $count) {
            if ($mark > 0) {
                $findings[$names[$mark - 1]] = ($findings[$names[$mark - 1]] ?? 0) + $count;
            }
        }

        return $findings;
    }

    /**
     * @param  list<int>  $acts
     * @param  list<string>  $decisions
     */
    private static function withoutEnded(array $acts, array $decisions, string $marks): self
    {
        $used = ltrim(count_chars($marks, 3), "\0");
        if (strlen($used) === count($acts)) {
            return new self($acts, $decisions, $marks);
        }
        $places = array_map(static fn(string $mark): int => ord($mark) - 1, $used === '' ? [] : str_split($used));
        $renumbered = $used === '' ? $marks : strtr($marks, $used, implode('', array_map(chr(...), range(1, count($places)))));

        return new self(
            array_map(static fn(int $place): int => $acts[$place], $places),
            array_map(static fn(int $place): string => $decisions[$place], $places),
            $renumbered,
        );
    }
}
