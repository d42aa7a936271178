<?php

declare(strict_types=1);

namespace App\Http\Requests\Prove;

use Illuminate\Foundation\Http\FormRequest;
use NineTally\Core\Totals\ControlTotal;

/** Figures that somebody published, of a total and its groups. */
final class PublishRequest extends FormRequest
{
    private const DECIMAL = '/^-?\d{1,60}(?:\.\d{1,30})?$/D';

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'publisher' => ['required', 'string', 'max:200'],
            'figures' => ['required', 'list', 'max:10000'],
            'figures.*.labels' => ['present', 'list', 'max:'.ControlTotal::MOST_GROUP_COLUMNS],
            'figures.*.labels.*' => ['present', 'string', 'max:1000'],
            'figures.*.figure' => ['present', 'nullable', 'string', 'regex:'.self::DECIMAL],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'publisher.required' => 'Say who published the figures.',
            'figures.*.figure.regex' => 'A figure is a number with a point before its decimals, such as 1412.60.',
        ];
    }

    public function publisher(): string
    {
        return $this->string('publisher')->trim()->toString();
    }

    /** @return list<array{labels: list<string>, figure: string|null}> byte for byte as they were sent */
    public function figures(): array
    {
        /** @var list<array{labels: list<string>, figure: string|null}> $figures */
        $figures = $this->validated('figures');

        return $figures;
    }
}
