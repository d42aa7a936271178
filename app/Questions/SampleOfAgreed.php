<?php

declare(strict_types=1);

namespace App\Questions;

use App\Models\EyeCheck;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Sampling\AgreedSample;
use NineTally\Core\Sampling\SampledRow;

/** Which rows an eye check is about: they follow from its seed, so whoever asks again gets the same. */
final readonly class SampleOfAgreed implements Question
{
    /**
     * @param  string  $plan  as JSON
     * @param  array{identical: int, byRule: int}  $sizes
     * @param  int  $rows  of the source
     */
    private function __construct(
        private BothSides $sides,
        private string $plan,
        private string $seed,
        private array $sizes,
        private int $rows,
    ) {}

    public static function of(EyeCheck $check): self
    {
        $tally = $check->tally;

        return new self(
            BothSides::ofTally($tally),
            $tally->planVersion->document,
            $check->seed,
            $check->sizes,
            $tally->summary['rows']['source']['prepared'],
        );
    }

    public function kind(): string
    {
        return 'sample-of-agreed';
    }

    public function about(): array
    {
        return [$this->sides->about(), hash('sha256', $this->plan), $this->seed, $this->sizes];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $readers = Sides::each(fn(Side $side): Reader => $this->sides->reader($material, $side));
        $blocks = 0;
        // How often both sides are read nobody knows before.
        $sample = new AgreedSample(Plan::fromJson($this->plan), $readers, $this->seed, static function () use (
            &$blocks,
            $onProgress,
        ): void {
            $onProgress(++$blocks, 0);
        });

        return [
            'rows' => array_map(
                static fn(SampledRow $row): array => ['byRule' => $row->byRule, 'hash' => $row->hash, 'key' => $row->key],
                $sample->draw($this->sizes, $this->rows),
            ),
        ];
    }
}
