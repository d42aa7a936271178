<?php

declare(strict_types=1);

namespace App\Http\Requests\Sign;

use App\Models\SigningTerms;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Limits\LimitFigure;

/**
 * What is good enough: for a dataset, with the draft that was seen; for a migration, with which duties are apart and what is kept.
 *
 * @phpstan-import-type Terms from SigningTerms
 */
final class LimitsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $isOfDataset = $this->route('dataset') !== null;

        return [
            'limits' => ['present', 'list', 'max:500'],
            'limits.*.figure' => ['required', Rule::enum(LimitFigure::class)],
            'limits.*.of' => $isOfDataset ? ['string', 'max:2000'] : ['prohibited'],
            'limits.*.worst' => ['present', ...$isOfDataset ? ['nullable'] : [], 'string', 'regex:/^\d{1,60}(\.\d{1,30})?$/D'],
            'draft' => $isOfDataset ? ['required', 'integer'] : ['prohibited'],
            ...$isOfDataset
                ? []
                : array_fill_keys(['needsCheck', 'maySignTwice', 'mayAcceptOwn'], ['required', 'boolean']) + [
                    'mayLink' => ['boolean'],
                    'reportsFor' => ['list'],
                    'reportsFor.*' => [Rule::in(SigningTerms::FIRST['reportsFor'])],
                    'contentMonths' => ['nullable', 'integer', 'between:1,1200'],
                    'packMonths' => ['nullable', 'integer', 'between:1,1200'],
                ],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'limits.*.worst.regex' => 'The worst value is a number with a point before its decimals, such as 99.5.',
            'contentMonths.between' => 'Content is kept between 1 and 1,200 months.',
            'packMonths.between' => 'Packs are kept between 1 and 1,200 months.',
        ];
    }

    /**
     * @param  Terms  $standing
     * @return array{reportsFor: list<string>, contentMonths: int|null, packMonths: int|null} what is not sent stays as it stands
     */
    public function keeping(array $standing): array
    {
        $months = fn(string $name): ?int => $this->input($name) === null ? null : $this->integer($name);
        /** @var list<string> $reportsFor */
        $reportsFor = $this->input('reportsFor', $standing['reportsFor']);

        return [
            'reportsFor' => $reportsFor,
            'contentMonths' => $this->has('contentMonths') ? $months('contentMonths') : $standing['contentMonths'],
            'packMonths' => $this->has('packMonths') ? $months('packMonths') : $standing['packMonths'],
        ];
    }

    /** @return list<\Closure(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            $seen = [];
            foreach ($validator->errors()->isEmpty() ? $this->limits() : [] as $place => $document) {
                $limit = Limit::fromArray($document);
                $problem = isset($seen[$limit->id()]) ? 'This figure has another limit before. Remove one of them.' : $limit->problem();
                if ($problem !== null) {
                    $validator->errors()->add("limits.{$place}", $problem);
                }
                $seen[$limit->id()] = true;
            }
        }];
    }

    /** @return list<array{figure: string, of?: string, worst: string|null}> */
    public function limits(): array
    {
        /** @var list<array{figure: string, of?: string, worst: string|null}> $limits */
        $limits = $this->input('limits');

        return $limits;
    }
}
