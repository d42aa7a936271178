<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

use NineTally\Core\Matching\KeyForm;

/** How the rows of a side are looked at: by which columns they are put together, and which columns make no difference. */
final readonly class LookedSide
{
    /** Causes of form that can make no difference for a look, from weak to strong. */
    public const FORGIVABLE = [
        'spacing', 'invisible', 'line-ends', 'case', 'unicode', 'punctuation', 'accents', 'leading-zeros', 'number-form', 'date-form',
    ];

    /**
     * @param  list<string>  $columns  of its rows
     * @param  list<int>  $places  of the columns whose values they share
     * @param  KeyForm  $form  what of form makes no difference there
     * @param  list<int>  $except  places of columns in which copies may differ
     * @param  StakeColumn|null  $stake  whose total the repeats add to
     * @param  bool  $hasDigests  whether rows are called by their digests too, so that a person can choose one of them
     */
    public function __construct(
        public array $columns,
        public array $places,
        private KeyForm $form,
        public array $except = [],
        public ?StakeColumn $stake = null,
        public bool $hasDigests = false,
    ) {}

    /** @param list<string> $cells */
    public function shared(array $cells): string
    {
        return $this->form->canonical(array_map(static fn(int $place): string => $cells[$place], $this->places));
    }
}
